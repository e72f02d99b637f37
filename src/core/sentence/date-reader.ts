import { parseDate } from '../time/index.ts';
import { DAY, dateNear, dateOf, nextDayOfMonth, nextMonday, nextWeekday } from './days.ts';
import { TokenReader } from './tokens.ts';

/** Reads the days a sentence names: "tomorrow", "next thursday", "12 may", "dia 12". */
export class DateReader extends TokenReader {
  protected readDate(i: number): { day: number; taken: number } | null {
    const w = this.words;
    const { today } = this.known;
    if (this.is(i, w.today)) return { day: today, taken: 1 };
    if (this.is(i, w.tomorrow)) return { day: today + DAY, taken: 1 };
    const after = this.phrase(i, w.dayAfter);
    if (after > 0) return { day: today + 2 * DAY, taken: after };
    const bare = this.bareDay(i);
    if (bare) return bare;
    const next = this.is(i, w.next) ? 1 : 0;
    const weekday = w.weekdays.findIndex((names) => this.is(i + next, names));
    if (weekday >= 0) {
      // "next thursday" is the one of the week after this.
      const day = next ? nextMonday(today) + weekday * DAY : nextWeekday(today, weekday);
      return { day, taken: 1 + next };
    }
    if (next && this.is(i + 1, w.week)) return { day: nextMonday(today), taken: 2 };
    return this.numericDate(i) ?? this.namedDate(i);
  }

  /** "dia 12", the next there is; "dia 12 de maio" is that one. */
  protected bareDay(i: number): { day: number; taken: number } | null {
    if (this.known.language !== 'pt' || this.tokens[i]?.word !== 'dia') return null;
    const named = this.namedDate(i + 1);
    if (named) return { day: named.day, taken: named.taken + 1 };
    const wanted = Number(/^\d{1,2}$/.exec(this.tokens[i + 1]?.word ?? '')?.[0] ?? 0);
    const day = nextDayOfMonth(this.known.today, wanted);
    return day === null ? null : { day, taken: 2 };
  }

  protected numericDate(i: number): { day: number; taken: number } | null {
    const word = this.tokens[i]?.word ?? '';
    const iso = /^(\d{4})-(\d{2})-(\d{2})$/.exec(word);
    if (iso) {
      const day = parseDate(word);
      return day === null ? null : { day, taken: 1 };
    }
    const parts = /^(\d{1,2})[/](\d{1,2})(?:[/](\d{2}|\d{4}))?$/.exec(word);
    if (!parts) return null;
    const [a, b] = [Number(parts[1]), Number(parts[2])];
    const [day, month] = this.known.dateOrder === 'mdy' ? [b, a] : [a, b];
    return this.dated(day, month, parts[3], 1);
  }

  protected namedDate(i: number): { day: number; taken: number } | null {
    const w = this.words;
    const number = (at: number) => /^(\d{1,2})(?:st|nd|rd|th|º)?$/.exec(this.tokens[at]?.word ?? '')?.[1];
    const year = (at: number) => /^(20\d{2})$/.exec(this.tokens[at]?.word ?? '')?.[1];
    const month = (at: number) => w.months.findIndex((names) => this.is(at, names)) + 1;
    const first = number(i);
    if (first !== undefined) {
      const of = this.is(i + 1, w.of) ? 1 : 0;
      const m = month(i + 1 + of);
      if (m > 0) {
        const also = this.is(i + 2 + of, w.of) && year(i + 3 + of) ? 1 : 0;
        const y = year(i + 2 + of + also);
        return this.dated(Number(first), m, y, 2 + of + (y ? 1 + also : 0));
      }
      return null;
    }
    const m = month(i);
    const second = number(i + 1);
    if (m === 0 || second === undefined) return null;
    const y = year(i + 2);
    return this.dated(Number(second), m, y, y ? 3 : 2);
  }

  /** A day of a month; without a year the next such day. */
  protected dated(day: number, month: number, year: string | undefined, taken: number) {
    const at = year === undefined ? dateNear(this.known.today, month, day, 'next') : dateOf(year, month, day);
    return at === null ? null : { day: at, taken };
  }
}
