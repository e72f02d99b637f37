import { dateText, parseDate } from '@/core/time/index.ts';
import { language, SHORT_PT } from '../language.ts';

const DAY = 86_400_000;

/** The order in which a person writes a date: day, month, year; month first; or year first. */
export type DateOrder = 'dmy' | 'mdy' | 'ymd';

const NEAR = new Map([
  ['today', 0],
  ['tomorrow', 1],
  ['yesterday', -1],
  ['hoje', 0],
  ['amanha', 1],
  ['ontem', -1],
]);
const NEXT = new Set(['next', 'proxima', 'proximo']);
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const MONTH_NAMES = MONTHS.map((m) => m.replace(/^./, (c) => c.toUpperCase()));
const WEEKDAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'];
// In Portuguese, without accents.
const MONTHS_PT = ['jan', 'fev', 'mar', 'abr', 'mai', 'jun', 'jul', 'ago', 'set', 'out', 'nov', 'dez'];
const WEEKDAYS_PT = ['dom', 'seg', 'ter', 'qua', 'qui', 'sex', 'sab'];
const WEEKDAY_NAMES = WEEKDAYS.map((d) => d.replace(/^./, (c) => c.toUpperCase()));

/** A date (`YYYY-MM-DD`) as text in a person's own order, with its day of the week, in the language that is spoken: `Tue 2 Mar 2027`. Other text stays as it is. */
export function dateWords(date: string, order: DateOrder): string {
  const at = parseDate(date);
  if (at === null) return date;
  const [year = '', month = '', day = ''] = date.split('-');
  const portuguese = language() === 'pt';
  const weekday = (portuguese ? SHORT_PT.weekdays : WEEKDAY_NAMES)[new Date(at).getUTCDay()];
  const name = (portuguese ? SHORT_PT.months : MONTH_NAMES)[Number(month) - 1];
  if (order === 'ymd') return `${weekday} ${date}`;
  return order === 'mdy' ? `${weekday} ${name} ${Number(day)}, ${year}` : `${weekday} ${Number(day)} ${name} ${year}`;
}

/**
 * Reads a date as people type it, in English or Portuguese: `2/3`, `2.3.27`, `0203`, `2 mar`, `March 2, 2027`, `2027-03-02`, `today`, `fri`. What has no year is
 * the nearest to `today`, a lone day the next such day, a day of the week the next one. Answers `YYYY-MM-DD`, or `null` for what is
 * no date.
 */
export function readDate(text: string, order: DateOrder, today: string): string | null {
  const now = parseDate(today) as number;
  const plain = text
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase();
  // "2 de março", "terça-feira": the small words say nothing more.
  const words = (plain.match(/\p{L}+|\d+/gu) ?? []).filter((w) => w !== 'de' && w !== 'feira');
  if (words.length === 0 || words.length > 4 || /[^\p{L}\d\s.,/-]/u.test(plain)) return null;
  const near = words.length === 1 ? NEAR.get(words[0] as string) : undefined;
  if (near !== undefined) return dateText(now + near * DAY);
  const weekdays = words.filter((w) => weekdayOf(w) >= 0);
  // "next monday" is the one of the week after this.
  if (words.length === 2 && weekdays.length === 1 && NEXT.has(words[0] as string)) {
    const fromMonday = (day: number) => (day + 6) % 7;
    const monday = now - fromMonday(new Date(now).getUTCDay()) * DAY;
    return dateText(monday + (7 + fromMonday(weekdayOf(weekdays[0] as string))) * DAY);
  }
  if (weekdays.length === 1 && words.length === 1) {
    const wanted = weekdayOf(weekdays[0] as string);
    return dateText(now + ((wanted - new Date(now).getUTCDay() + 7) % 7) * DAY);
  }
  const rest = words.filter((w) => !weekdays.includes(w));
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

const indexIn = (word: string, lists: readonly (readonly string[])[]): number => {
  for (const list of lists) {
    const at = list.findIndex((short) => isName(word, short));
    if (at >= 0) return at;
  }
  return -1;
};
/** Which day of the week, from Sunday, and which month, from January, a word is in either language; -1 for none. */
const weekdayOf = (word: string): number => indexIn(word, [WEEKDAYS, WEEKDAYS_PT]);
const monthOf = (word: string): number => indexIn(word, [MONTHS, MONTHS_PT]);
const isName = (word: string, short: string): boolean =>
  word.length >= 3 && word.startsWith(short) && /^\p{L}+$/u.test(word);

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

function fromNumbers(numbers: readonly string[], order: DateOrder, now: number): string | null {
  const [a = '', b = '', c] = numbers;
  if (numbers.length === 1) return a === '' ? null : nextDay(Number(a), now);
  if (numbers.length === 2)
    return order === 'dmy' ? dated(undefined, Number(b), Number(a), now) : dated(undefined, Number(a), Number(b), now);
  if (numbers.length !== 3) return null;
  if (a.length === 4 || order === 'ymd') return dated(a, Number(b), Number(c), now);
  return order === 'mdy' ? dated(c, Number(a), Number(b), now) : dated(c, Number(b), Number(a), now);
}

/** A day of some month and year as a date, if there is one; without a year the one nearest to now. */
function dated(year: string | undefined, month: number, day: number, now: number): string | null {
  const on = (y: number): number | null => {
    const pad = (n: number, to: number) => String(n).padStart(to, '0');
    return parseDate(`${pad(y, 4)}-${pad(month, 2)}-${pad(day, 2)}`);
  };
  if (year !== undefined) {
    if (![2, 4].includes(year.length)) return null;
    const at = on(Number(year) + (year.length === 2 ? 2000 : 0));
    return at === null ? null : dateText(at);
  }
  const current = new Date(now).getUTCFullYear();
  const found = [current - 1, current, current + 1].flatMap((y) => on(y) ?? []);
  const nearest = found.sort((x, y) => Math.abs(x - now) - Math.abs(y - now))[0];
  return nearest === undefined ? null : dateText(nearest);
}

/** The next day of that number, today included. */
function nextDay(day: number, now: number): string | null {
  for (let n = 0; n < 62; n++) if (new Date(now + n * DAY).getUTCDate() === day) return dateText(now + n * DAY);
  return null;
}
