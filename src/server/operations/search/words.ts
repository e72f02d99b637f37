import type { ItemWire } from '@/contract/items/items.ts';
import { SEARCHED_FIELDS } from '@/core/calendar/index.ts';

/** Whether what is seen of an item holds every word as the beginning of one of its own. */
export function holds(view: ItemWire, words: readonly string[]): boolean {
  const { organiser, attendees } = view;
  const people = [organiser, ...(attendees ?? [])].flatMap((p) => (p ? [p.name, p.address] : []));
  const own = new Set(
    [...SEARCHED_FIELDS.flatMap((name) => view[name] ?? []), ...people].flatMap((text) => allWordsOf(text ?? '')),
  );
  return words.every((word) => own.has(word) || [...own].some((one) => one.startsWith(word)));
}

const MOST_WORDS = 8;

/** The words that are looked for: the first eight. */
export const wordsOf = (text: string): string[] => allWordsOf(text).slice(0, MOST_WORDS);

/** The words of a text as they are compared: small letters, without accents. */
export const allWordsOf = (text: string): string[] =>
  text
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .match(/[\p{L}\p{N}]+/gu) ?? [];
