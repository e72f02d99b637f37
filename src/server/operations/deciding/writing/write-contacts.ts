import { insertContact, type StoredContact, updateContact } from '../../../repositories/contacts.ts';
import type { AddressBook } from '../../../repositories/lists.ts';
import type { Context } from '../context/context.ts';
import { ContactReading } from '../reading/contact-views.ts';
import { type ToWrite, writeInList } from './write-in-list.ts';

export type ContactToWrite = ToWrite<StoredContact>;

/** Writes contacts of one book. Every write on contacts goes through here. */
export const writeContacts = (
  ctx: Pick<Context, 'db' | 'now' | 'viewer'>,
  list: AddressBook,
  verb: string,
  contacts: readonly ContactToWrite[],
) =>
  writeInList(ctx, list, verb, contacts, {
    insert: insertContact,
    update: updateContact,
    look: (theirs, on) => {
      const reading = new ContactReading(theirs, on);
      return (contact) => reading.view(contact);
    },
  });

/** What can be taken back on contacts. */
export const UNDOABLE_ON_CONTACTS: ReadonlySet<string> = new Set([
  'contact.added',
  'contact.broughtIn',
  'contact.changed',
  'contact.merged',
  'contact.removed',
]);
