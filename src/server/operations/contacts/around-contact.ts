import type { ContactAroundAnswer } from '@/contract/contacts.ts';
import { addressForm } from '@/core/contacts/index.ts';
import { personById } from '../../repositories/people.ts';
import { ok, type Result } from '../../result.ts';
import { type Context, findContact, isRefusal } from '../deciding/index.ts';
import { messagesWithAny } from '../messages/index.ts';
import { metWith } from '../search/index.ts';

/**
 * What there is with a contact, as far as the viewer may see it: meetings in the calendars they keep, when they last met, and the mail of whose book
 * it is.
 */
export function listAroundContact(ctx: Context, key: string): Result<ContactAroundAnswer> {
  const found = findContact(ctx, key);
  if (isRefusal(found)) return found;
  const addresses = found.contact.addresses.map(({ value }) => addressForm(value));
  if (addresses.length === 0) return ok({ meetings: [], lastMet: null, messages: [], cut: false });
  const owner = personById(ctx.db, found.decided.list.ownerId);
  const messages = owner ? messagesWithAny(ctx, owner, addresses) : [];
  return ok({ ...metWith(ctx, addresses), messages: [...messages] });
}
