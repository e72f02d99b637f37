import type { ContactWire } from '@/contract/contacts.ts';
import type { SearchAnswer } from '@/contract/search.ts';
import { contactSights, SEARCHED_CONTACT_FIELDS } from '@/core/contacts/index.ts';
import { contactsHolding } from '../../repositories/contacts.ts';
import { ContactReading, type Context, type Directory, listReaderFor } from '../deciding/index.ts';
import { textsSeenOf } from './texts-seen.ts';
import { type Alike, inList, type SeenList, throughLists } from './through-lists.ts';
import { allWordsOf } from './words.ts';

/** Contacts whose words, as the viewer sees them, hold every word that is looked for: in their own books, and in those they were given. */
export function searchContacts(ctx: Context, words: readonly string[]): Pick<SearchAnswer, 'contacts' | 'contactsCut'> {
  const { found, cut } = throughLists(ctx, 'contacts', (alike, most, directory) =>
    contactsFound(ctx, alike, words, most, directory).map(
      ([on, contact]) => [on, { of: on.list.first ? null : on.list.name, contact }] as const,
    ),
  );
  return { contacts: found, contactsCut: cut };
}

/** Contacts of some books that hold every word, as the viewer sees them, by name, each with its book: at most `most`. */
export function contactsFound(
  ctx: Context,
  alike: Alike<'contacts'>,
  words: readonly string[],
  most: number,
  directory: Directory,
): (readonly [SeenList<'contacts'>, ContactWire])[] {
  const [{ decision }] = alike;
  const reader = listReaderFor(ctx.viewer.id, decision);
  const books = alike.map(({ list }) => list.id);
  const seen = new Map<string, readonly [SeenList<'contacts'>, ContactWire]>();
  for (const texts of textsSeenOf(ctx.viewer.id, decision, SEARCHED_CONTACT_FIELDS, contactSights))
    for (const contact of contactsHolding(ctx.db, books, words, texts, reader, most)) {
      const on = inList(alike, contact.listId);
      const view = new ContactReading(ctx, on, directory).view(contact);
      if (view && holds(view, words)) seen.set(view.id, [on, view]);
    }
  return [...seen.values()].slice(0, most);
}

/** Whether what is seen of a contact holds every word as the beginning of one of its own. */
function holds(view: ContactWire, words: readonly string[]): boolean {
  const texts = SEARCHED_CONTACT_FIELDS.flatMap((name): readonly string[] => {
    const value = view[name];
    if (value === undefined || value === null) return [];
    if (typeof value === 'string') return [value];
    return value.map((one) => (typeof one === 'string' ? one : one.value));
  });
  const own = texts.flatMap(allWordsOf);
  return words.every((word) => own.some((one) => one.startsWith(word)));
}
