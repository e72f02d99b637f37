import type { ContactsAnswer, ContactWire } from '@/contract/contacts.ts';
import { openSealed, sealIds } from '../../ids.ts';
import { contactById, contactsOf, type ListedContact, nameOrder } from '../../repositories/contacts.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  ContactReading,
  type Context,
  Directory,
  findList,
  isRefusal,
  listReaderFor,
  noteUse,
} from '../deciding/index.ts';
import { contactsFound, wordsOf } from '../search/index.ts';
import { bookWire } from './books.ts';

/** Contacts in one answer, by their number and about their size. */
const MOST = 250;
const MOST_BYTES = 1_000_000;

/** The contacts of an address book as the viewer sees them, by name, a page at a time; or those whose texts hold some words. */
export function listContacts(
  ctx: Context,
  key: string,
  query: { words?: string | undefined; after?: string | undefined },
): Result<ContactsAnswer> {
  const found = findList(ctx, 'contacts', key);
  if (isRefusal(found)) return found;
  const after = query.after === undefined ? null : readMark(ctx, query.after);
  if (query.after !== undefined && after === null) return refuse('badInput', { fields: { after: 'unclear' } });
  const directory = new Directory(ctx.db);
  const list = bookWire(ctx, found, directory);
  noteUse(ctx, found.decision);
  const words = wordsOf(query.words ?? '');
  if (words.length > 0) {
    const holding = contactsFound(ctx, [found], words, MOST + 1, directory).map(([, contact]) => contact);
    return ok({ list, contacts: holding.slice(0, MOST), more: null, cut: holding.length > MOST });
  }
  const rows = contactsOf(ctx.db, found.list.id, listReaderFor(ctx.viewer.id, found.decision), after, MOST + 1);
  const reading = new ContactReading(ctx, found, directory);
  const contacts: ContactWire[] = [];
  let bytes = 0;
  let last: ListedContact | null = null;
  for (const row of rows.slice(0, MOST)) {
    const view = reading.view(row);
    bytes += 400 + (view?.notes?.length ?? 0);
    if (bytes > MOST_BYTES && contacts.length > 0) break;
    if (view) contacts.push(view);
    last = row;
  }
  const ends = last === null || last.id === rows.at(-1)?.id;
  return ok({
    list,
    contacts,
    more: ends ? null : (sealIds([{ viewer: ctx.viewer.id, item: last?.id ?? 0, start: 0 }])[0] ?? null),
    cut: false,
  });
}

/** Behind which contact to go on: a row number would tell how many there are in the house. */
function readMark(ctx: Context, text: string): { order: string; id: number } | null {
  const sealed = openSealed(text);
  const contact = sealed?.viewer === ctx.viewer.id ? contactById(ctx.db, sealed.item) : null;
  return contact && { order: nameOrder(contact.name), id: contact.id };
}
