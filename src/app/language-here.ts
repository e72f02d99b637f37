import { headers } from 'next/headers';
import { type Language, languageOf } from '@/messages/languages.ts';
import { personOf } from '@/server/operations/people/session.ts';

/** The language a page is drawn in: of whoever is signed in their own, of everybody else what their browser prefers. */
export async function languageHere(): Promise<Language> {
  const incoming = await headers();
  return (await personOf(incoming))?.language ?? languageOf(incoming.get('accept-language'));
}
