import type { ContactsKnown } from '@/contract/contacts.ts';
import type { Context } from '../deciding/index.ts';
import { Directory } from '../deciding/index.ts';
import { booksKnown } from '../lists/index.ts';
import { contactsFound, wordsOf } from '../search/index.ts';

/** Whom one knows, for where people are typed: at most so many. */
const MOST = 20;

/** Mail addresses of whoever's contact holds some words, in the books of which the viewer sees all: each address once, their own books first. */
export function findContacts(ctx: Context, text: string): ContactsKnown {
  const words = wordsOf(text);
  const directory = new Directory(ctx.db);
  const known = new Map<string, ContactsKnown['contacts'][number]>();
  if (words.length > 0)
    for (const on of booksKnown(ctx)) {
      if (known.size > MOST) break;
      for (const [, { name, organisation, addresses = [] }] of contactsFound(ctx, [on], words, MOST, directory))
        for (const { value } of addresses)
          if (!known.has(value.toLowerCase()))
            known.set(value.toLowerCase(), { name, organisation: organisation ?? null, address: value });
    }
  const all = [...known.values()];
  return { contacts: all.slice(0, MOST), cut: all.length > MOST };
}
