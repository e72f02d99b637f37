import type { ContactWire } from '@/contract/contacts.ts';
import type { SearchAnswer } from '@/contract/search.ts';
import { contactSights, SEARCHED_CONTACT_FIELDS } from '@/core/contacts/index.ts';
import { contactsHolding } from '../../repositories/contacts.ts';
import { ContactReading, type Context, type DecidedList, type Directory, listReaderFor } from '../deciding/index.ts';
import { textsSeenOf } from './texts-seen.ts';
import { throughLists } from './through-lists.ts';
import { allWordsOf } from './words.ts';

/** Contacts whose words, as the one who asks sees them, hold every word that is looked for: in their own books, and in those they were given. */
export function searchContacts(ctx: Context, words: readonly string[]): Pick<SearchAnswer, 'contacts' | 'contactsCut'> {
  const { found, cut } = throughLists(ctx, 'contacts', (on, most, directory) =>
    contactsFound(ctx, on, words, most, directory).map((contact) => ({
      of: on.list.first ? null : on.list.name,
      contact,
    })),
  );
  return { contacts: found, contactsCut: cut };
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
