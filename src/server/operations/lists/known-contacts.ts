import type { ContactWire } from '@/contract/contacts.ts';
import { addressForm } from '@/core/contacts/index.ts';
import { contactsAt } from '../../repositories/contacts.ts';
import { listsOf } from '../../repositories/lists.ts';
import { ContactReading, type Context, type DecidedList, Directory, decideOnList } from '../deciding/index.ts';
import { sharedWith } from './lists.ts';

/** Address books that are looked through for whoever somebody knows. */
const MOST_BOOKS = 50;
/** Contacts with one address that are looked at. */
const MOST_AT = 50;

/** The address books of which the viewer sees more than nothing: their own, then those they were given. */
export const booksKnown = (ctx: Context): DecidedList<'contacts'>[] =>
  [...listsOf(ctx.db, 'contacts', ctx.viewer.id), ...sharedWith(ctx, 'contacts')]
    .slice(0, MOST_BOOKS)
    .map((list) => decideOnList(ctx, list))
    .filter(({ decision }) => decision.rights.sight !== 'nothing');

/** Finds whoever has a mail address in one of some books, among those the viewer sees in full: in the first book that has them. */
export function contactFinder(ctx: Context, books = booksKnown(ctx)): (address: string) => ContactWire | null {
  const directory = new Directory(ctx.db);
  const ids = books.map(({ list }) => list.id);
  const readings = new Map(books.map((on) => [on.list.id, new ContactReading(ctx, on, directory)]));
  return (address) => {
    const there = contactsAt(ctx.db, ids, addressForm(address), MOST_AT);
    for (const contact of there.toSorted((a, b) => ids.indexOf(a.listId) - ids.indexOf(b.listId))) {
      const view = readings.get(contact.listId)?.view(contact);
      if (view?.version !== undefined) return view;
    }
    return null;
  };
}

/** The number by which somebody is reached on the way: a mobile one first. */
export const numberOf = ({ phones = [] }: Pick<ContactWire, 'phones'>): string | null =>
  (phones.find(({ as }) => as === 'mobile') ?? phones.find(({ as }) => as !== 'fax'))?.value ?? null;
