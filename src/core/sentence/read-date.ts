import { dateText, parseDate } from '../time/index.ts';
import { DAY, dateNear, dateOf, nextDayOfMonth, nextMonday, nextWeekday } from './days.ts';
import { type DateOrder, plain } from './tokens.ts';
import { ENGLISH, PORTUGUESE } from './words.ts';

const LANGUAGES = [ENGLISH, PORTUGUESE];
const NEAR = new Map<string, number>([
  ...LANGUAGES.flatMap((w) => w.today.map((word) => [word, 0] as const)),
  ...LANGUAGES.flatMap((w) => w.tomorrow.map((word) => [word, 1] as const)),
  ['yesterday', -1],
  ['ontem', -1],
]);
const NEXT = new Set(LANGUAGES.flatMap((w) => w.next));

/**
 * Reads a date as people type it, in English or Portuguese: `2/3`, `2.3.27`, `0203`, `2 mar`, `March 2, 2027`, `2027-03-02`, `today`, `fri`. What has no year is
 * the nearest to `today`, a lone day the next such day, a day of the week the next one. Answers `YYYY-MM-DD`, or `null` for what is
 * no date.
 */
export function readDate(text: string, order: DateOrder, today: string): string | null {
  const at = readDay(plain(text), order, parseDate(today) as number);
  return at === null ? null : dateText(at);
}

function readDay(text: string, order: DateOrder, now: number): number | null {
  // "2 de março", "terça-feira": the small words say nothing more.
  const words = (text.match(/\p{L}+|\d+/gu) ?? []).filter((w) => w !== 'de' && w !== 'feira');
  if (words.length === 0 || words.length > 4 || /[^\p{L}\d\s.,/-]/u.test(text)) return null;
  const [first = '', second = ''] = words;
  const near = words.length === 1 ? NEAR.get(first) : undefined;
  if (near !== undefined) return now + near * DAY;
  // "next monday" is the one of the week after this.
  if (words.length === 2 && NEXT.has(first) && weekdayOf(second) >= 0) return nextMonday(now) + weekdayOf(second) * DAY;
  if (words.length === 1 && weekdayOf(first) >= 0) return nextWeekday(now, weekdayOf(first));
  const rest = words.filter((w) => weekdayOf(w) < 0);
  const names = rest.filter((w) => /\p{L}/u.test(w));
  const numbers = rest.filter((w) => /\d/.test(w));
  if (names.length === 1) {
    const month = monthOf(names[0] as string) + 1;
    if (month === 0 || numbers.length < 1 || numbers.length > 2) return null;
    const [a = '', b] = numbers;
    return a.length === 4 ? dated(a, month, Number(b), now) : dated(b, month, Number(a), now);
  }
  if (names.length > 0) return null;
  return fromNumbers(numbers.length === 1 ? apart(numbers[0] as string, order) : numbers, order, now);
}

/** The place in its list of what a word is, or begins with three letters or more; -1 for none. */
const indexIn = (word: string, lists: readonly (readonly (readonly string[])[])[]): number => {
  const found = lists.map((list) =>
    list.findIndex((names) => names.some((name) => word.length >= 3 && name.startsWith(word))),
  );
  return found.find((at) => at >= 0) ?? -1;
};
/** Which day of the week, from Monday, and which month, from January, a word is in either language. */
const weekdayOf = (word: string): number =>
  indexIn(
    word,
    LANGUAGES.map((w) => w.weekdays),
  );
const monthOf = (word: string): number =>
  indexIn(
    word,
    LANGUAGES.map((w) => w.months),
  );

/** Figures written without anything between: `0203`, `020327`, `02032027`, `20270302`. */
function apart(figures: string, order: DateOrder): string[] {
  const cut = (...at: number[]) => at.map((from, i) => figures.slice(from, at[i + 1] ?? figures.length));
  if (figures.length <= 2) return [figures];
  if (figures.length === 4) return cut(0, 2);
  if (figures.length === 6) return cut(0, 2, 4);
  if (figures.length !== 8) return [];
  return order === 'ymd' ||
    (Number(figures.slice(4, 6)) <= 12 && /^(19|20|21)/.test(figures) && Number(figures.slice(2, 4)) > 12)
    ? cut(0, 4, 6)
    : cut(0, 2, 4);
}

function fromNumbers(numbers: readonly string[], order: DateOrder, now: number): number | null {
  const [a = '', b = '', c] = numbers;
  if (numbers.length === 1) return a === '' ? null : nextDayOfMonth(now, Number(a));
  if (numbers.length === 2)
    return order === 'dmy' ? dated(undefined, Number(b), Number(a), now) : dated(undefined, Number(a), Number(b), now);
  if (numbers.length !== 3) return null;
  if (a.length === 4 || order === 'ymd') return dated(a, Number(b), Number(c), now);
  return order === 'mdy' ? dated(c, Number(a), Number(b), now) : dated(c, Number(b), Number(a), now);
}

/** A day of some month and year, if there is one; without a year the one nearest to now. */
function dated(year: string | undefined, month: number, day: number, now: number): number | null {
  if (year === undefined) return dateNear(now, month, day, 'nearest');
  return year.length === 2 || year.length === 4 ? dateOf(year, month, day) : null;
}
