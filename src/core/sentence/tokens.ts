import { ENGLISH, PORTUGUESE, type Words } from './words.ts';

/** The order in which a person writes a date: day, month, year; month first; or year first. */
export type DateOrder = 'dmy' | 'mdy' | 'ymd';

/** What is known of whoever types: their day (`today` as a date at midnight), language, order of dates, and the names they may mean. */
export interface Known {
  readonly today: number;
  /** The minute of their day, for what is to begin now; without it *now* is a word as any other. */
  readonly now?: number;
  readonly language: 'en' | 'pt';
  readonly dateOrder: DateOrder;
  readonly people: readonly string[];
  readonly places: readonly string[];
  /** What the calendars it may go into are called; one name stands for one calendar alone. */
  readonly calendars?: readonly string[];
}

export interface Token {
  readonly text: string;
  readonly word: string;
  /** Whether a comma follows. */
  readonly comma: boolean;
}

/** A word as it is compared: small letters, without accents, its apostrophes straight. */
export const plain = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .replace(/’/g, "'")
    .toLowerCase();

/** The words of a sentence, as whatever reads a part of it looks at them. */
export class TokenReader {
  protected readonly words: Words;

  constructor(
    protected readonly tokens: readonly Token[],
    protected readonly known: Known,
  ) {
    this.words = known.language === 'pt' ? PORTUGUESE : ENGLISH;
  }

  protected is(i: number, list: readonly string[]): boolean {
    const word = this.tokens[i]?.word;
    return word !== undefined && list.includes(word);
  }

  /** How many words from `i` make up one of some phrases. */
  protected phrase(i: number, phrases: readonly string[]): number {
    for (const phrase of phrases) {
      const words = phrase.split(' ');
      if (words.every((word, n) => this.tokens[i + n]?.word === word)) return words.length;
    }
    return 0;
  }
}
