import type { AddressBooksAnswer, AddressBookWire } from '@/contract/contacts.ts';
import { countShownContacts } from '../../repositories/contacts.ts';
import type { Result } from '../../result.ts';
import { type Context, type DecidedList, type Directory, listReaderFor } from '../deciding/index.ts';
import { listsSeen, listWire } from '../lists/index.ts';

/** Contacts are counted up to so many. */
const MOST_COUNTED = 20_000;

/** An address book as the viewer sees it. */
export function bookWire(ctx: Context, on: DecidedList<'contacts'>, directory: Directory): AddressBookWire {
  const reader = listReaderFor(ctx.viewer.id, on.decision);
  const count = countShownContacts(ctx.db, on.list.id, reader, MOST_COUNTED + 1);
  return { ...listWire(on, directory), count: count > MOST_COUNTED ? null : count };
}

/** Somebody's address books that the viewer sees; with one's own those of others that one sees. */
export const listAddressBooks = (ctx: Context, handle: string): Result<AddressBooksAnswer> =>
  listsSeen(ctx, 'contacts', handle, (on, directory) => bookWire(ctx, on, directory));
