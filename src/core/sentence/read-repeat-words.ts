import { readSentence } from './read-sentence.ts';

/** Reads a repeat as it is said: "the last Thursday of every second month until 3 June". An RRULE's value, or `null` for what is none. */
export function readRepeatWords(
  text: string,
  known: { readonly today: number; readonly language: 'en' | 'pt'; readonly dateOrder: 'dmy' | 'mdy' | 'ymd' },
): string | null {
  const { rule, title } = readSentence(text, { ...known, people: [], places: [] });
  // Words that are no part of it would be lost: nothing is read then.
  return title === '' ? rule : null;
}
