import type { MayItem } from '@/core/access/index.ts';
import { contactByKey, type StoredContact } from '../../../repositories/contacts.ts';
import { listById } from '../../../repositories/lists.ts';
import { type Refusal, refuse } from '../../../result.ts';
import type { Context } from '../context/context.ts';
import { ContactReading, mayOnContact } from '../reading/contact-views.ts';
import { type DecidedList, decideOnList } from './find-list.ts';

/** A contact that the viewer sees in full, with what they may do with it. */
export interface FoundContact {
  readonly decided: DecidedList<'contacts'>;
  readonly contact: StoredContact;
  readonly may: MayItem;
}

/** Finds a contact by its key for the viewer. One they don't see in full is answered exactly like one that doesn't exist. */
export function findContact(ctx: Context, key: string): FoundContact | Refusal {
  const contact = contactByKey(ctx.db, key);
  const list = contact && contact.removedAt === null ? listById(ctx.db, 'contacts', contact.listId) : null;
  if (!contact || !list) return refuse('notFound');
  const decided = decideOnList(ctx, list);
  const view = new ContactReading(ctx, decided).view(contact);
  if (!view || view.version === undefined) return refuse('notFound');
  return { decided, contact, may: mayOnContact(ctx, decided.decision, contact) };
}
