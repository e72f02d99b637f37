import type { ContactWire } from '@/contract/contacts.ts';
import type { SearchAnswer } from '@/contract/search.ts';
import { contactSights, SEARCHED_CONTACT_FIELDS } from '@/core/contacts/index.ts';
import { contactsHolding } from '../../repositories/contacts.ts';
import { listsOf } from '../../repositories/lists.ts';
import {
  ContactReading,
  type Context,
  type DecidedList,
  Directory,
  decideOnList,
  listReaderFor,
} from '../deciding/index.ts';
import { sharedWith } from '../lists/index.ts';
import { textsSeenOf } from './texts-seen.ts';
import { allWordsOf } from './words.ts';

/** Contacts that are answered, and books that are looked through. */
const MOST = 20;
const MOST_BOOKS = 200;

/** Contacts whose words, as the one who asks sees them, hold every word that is looked for: in their own books, and in those they were given. */
export function searchContacts(ctx: Context, words: readonly string[]): Pick<SearchAnswer, 'contacts' | 'contactsCut'> {
  const books = [...listsOf(ctx.db, 'contacts', ctx.viewer.id), ...sharedWith(ctx, 'contacts').slice(0, MOST_BOOKS)];
  const directory = new Directory(ctx.db);
  const found: SearchAnswer['contacts'][number][] = [];
  for (const list of books) {
    if (found.length > MOST) break;
    const on = decideOnList(ctx, list);
    if (on.decision.rights.sight === 'nothing') continue;
    const { handle = '', name = '', colour = 0 } = directory.person(list.ownerId) ?? {};
    for (const contact of contactsFound(ctx, on, words, MOST + 1, directory))
      found.push({ owner: { handle, name, colour: colour % 6 }, of: list.first ? null : list.name, contact });
  }
  return { contacts: found.slice(0, MOST), contactsCut: found.length > MOST };
}

/** Contacts of one book that hold every word, as the one who asks sees them, by name: at most `most`. */
export function contactsFound(
  ctx: Context,
  on: DecidedList<'contacts'>,
  words: readonly string[],
  most: number,
  directory: Directory,
): ContactWire[] {
  const reader = listReaderFor(ctx.viewer.id, on.decision);
  const reading = new ContactReading(ctx, on, directory);
  const seen = new Map<string, ContactWire>();
  for (const texts of textsSeenOf(ctx.viewer.id, on.decision, SEARCHED_CONTACT_FIELDS, contactSights))
    for (const contact of contactsHolding(ctx.db, on.list.id, words, texts, reader, most)) {
      const view = reading.view(contact);
      if (view && holds(view, words)) seen.set(view.id, view);
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
