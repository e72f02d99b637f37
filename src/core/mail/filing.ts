/** What a rule for filing looks at; all that it names must fit. Names and words are told apart by neither capitals nor marks. */
export interface FilingRule {
  /** A part of the sender's address or name. */
  readonly sender: string | null;
  /** Words, each of which begins a word of the subject or of the text. */
  readonly words: string | null;
  /** What is about a meeting. */
  readonly meeting: boolean;
}

/** Something that arrives, as far as rules look at it. */
export interface Arriving {
  readonly from: { readonly address: string; readonly name: string | null };
  readonly subject: string;
  readonly text: string;
  readonly meeting: boolean;
}

/** Of a long text, so much is looked at. */
const MOST_LOOKED_AT = 20_000;

const plain = (text: string): string =>
  text.slice(0, MOST_LOOKED_AT).normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
const wordsOf = (text: string): string[] => plain(text).match(/[\p{L}\p{N}]+/gu) ?? [];

/** Whether a rule fits what arrives. One that names nothing fits nothing. */
export function fits(rule: FilingRule, { from, subject, text, meeting }: Arriving): boolean {
  const sender = plain(rule.sender ?? '').trim();
  const words = wordsOf(rule.words ?? '');
  if (sender === '' && words.length === 0 && !rule.meeting) return false;
  if (rule.meeting && !meeting) return false;
  if (sender !== '' && ![from.address, from.name ?? ''].some((one) => plain(one).includes(sender))) return false;
  if (words.length === 0) return true;
  const there = new Set([...wordsOf(subject), ...wordsOf(text)]);
  return words.every((word) => [...there].some((one) => one.startsWith(word)));
}

/**
 * The first of some rules that fits what arrives, or `null`. It is asked once, when something arrives: what a rule has filed is looked at by
 * no other, so that none can go round.
 */
export const fitting = <R extends FilingRule>(rules: readonly R[], arriving: Arriving): R | null =>
  rules.find((rule) => fits(rule, arriving)) ?? null;
