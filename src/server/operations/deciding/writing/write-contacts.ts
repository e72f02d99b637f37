import { insertContact, type StoredContact, updateContact } from '../../../repositories/contacts.ts';
import type { AddressBook } from '../../../repositories/lists.ts';
import type { Context } from '../context/context.ts';
import { ContactReading } from '../reading/contact-views.ts';
import { announceInList } from './announce-list.ts';
import { trailOn } from './trail.ts';

/** A contact as it is to be from now on; a new one has no row number yet. */
export type ContactToWrite =
  | { readonly before: StoredContact; readonly after: StoredContact }
  | { readonly before: null; readonly after: Omit<StoredContact, 'id'> };

/** One contact before and after a write. */
interface ContactChange {
  readonly before: StoredContact | null;
  readonly after: StoredContact;
}

/**
 * Writes contacts of one book, in one transaction: their rows, one trail row, and, once it is committed, what open windows are told. Every write
 * on contacts goes through here. Whether it may be done is the caller's to decide, in the same transaction. Answers what was changed, and the key
 * that undoes it.
 */
export function writeContacts(
  ctx: Pick<Context, 'db' | 'now' | 'viewer'>,
  list: AddressBook,
  verb: string,
  contacts: readonly ContactToWrite[],
): { readonly changes: readonly ContactChange[]; readonly undo: string } {
  if (contacts.length === 0) return { changes: [], undo: '' };
  return ctx.db.write(() => {
    const changes = contacts.map(({ before, after }): ContactChange => {
      if (before === null) return { before, after: insertContact(ctx.db, after) };
      updateContact(ctx.db, after);
      return { before, after };
    });
    const undo = trailOn(
      ctx,
      list,
      changes[0]?.after.key ?? '',
      verb,
      changes.map((c) => c.before),
      changes.map((c) => c.after),
    );
    announceInList(ctx, list, changes, (theirs, on) => {
      const reading = new ContactReading(theirs, on);
      return (contact) => reading.view(contact);
    });
    return { changes, undo };
  });
}

/** What can be taken back on contacts. */
export const UNDOABLE_ON_CONTACTS: ReadonlySet<string> = new Set([
  'contact.added',
  'contact.broughtIn',
  'contact.changed',
  'contact.merged',
  'contact.removed',
]);
