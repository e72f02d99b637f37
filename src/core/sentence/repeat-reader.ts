import { civil, dateText, dayNumber, weekdayOf } from '../time/index.ts';
import { DateReader } from './date-reader.ts';
import { DAY } from './days.ts';

const BYDAY = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
/** Small words before a day, in Portuguese, without accents. */
const PT_ON = ['a', 'as', 'aos', 'ao', 'na', 'nas', 'no', 'nos'] as const;
/** Numbers as they are said in a repeat. */
const PT_NUMBERS: Readonly<Record<string, number>> = { dois: 2, duas: 2, tres: 3, quatro: 4, cinco: 5, seis: 6 };

/** Reads how something repeats: the value of an RRULE, and how that ends. */
export class RepeatReader extends DateReader {
  protected rule: string | null = null;
  protected ends = '';

  protected repeat(i: number): number {
    const w = this.words;
    const simple = (list: readonly string[], rule: string): number => {
      if (!this.is(i, list)) return 0;
      this.rule = rule;
      return 1;
    };
    const said =
      simple(w.daily, 'FREQ=DAILY') ||
      simple(w.weekly, 'FREQ=WEEKLY') ||
      simple(w.fortnightly, 'FREQ=WEEKLY;INTERVAL=2') ||
      simple(w.monthly, 'FREQ=MONTHLY') ||
      simple(w.yearly, 'FREQ=YEARLY');
    if (said) return said;
    const nth = this.nthOfMonth(i);
    if (nth > 0) return nth;
    const everySo = this.everySoMany(i);
    if (everySo > 0) return everySo;
    if (!this.is(i, w.every)) return 0;
    let at = i + 1;
    // "todas as quintas", "todos os dias"
    if (this.known.language === 'pt' && /^[ao]s$/.test(this.tokens[at]?.word ?? '')) at++;
    let interval = 1;
    const number = this.count(at);
    if (number !== null) {
      interval = number;
      at++;
    } else if (this.is(at, w.second)) {
      interval = 2;
      at++;
    }
    if (interval < 1) return 0;
    const every = interval === 1 ? '' : `;INTERVAL=${interval}`;
    const unit = (list: readonly string[], freq: string, extra = ''): number => {
      if (!this.is(at, list)) return 0;
      this.rule = `FREQ=${freq}${every}${extra}`;
      return at + 1 - i;
    };
    if (this.known.language === 'pt' && this.is(at, w.day) && this.is(at + 1, w.weekday)) {
      this.rule = 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR';
      return at + 2 - i;
    }
    // "every last friday"
    const which = this.ordinal(at);
    if (which !== null && interval === 1) {
      const by = this.byDay(at + 1, which);
      if (by) {
        this.rule = `FREQ=MONTHLY;${by}`;
        return at + 2 - i;
      }
    }
    if (this.is(at, w.month)) {
      const on = this.onOfMonth(at + 1);
      if (on) {
        this.rule = `FREQ=MONTHLY${every};${on.by}`;
        return at + 1 + on.taken - i;
      }
    }
    const found =
      unit(w.weekday, 'WEEKLY', ';BYDAY=MO,TU,WE,TH,FR') ||
      unit(w.day, 'DAILY') ||
      unit(w.week, 'WEEKLY') ||
      unit(w.month, 'MONTHLY') ||
      unit(w.year, 'YEARLY');
    if (found) return found + this.onDays(i + found);
    const { days, taken } = this.daysFrom(at);
    if (days.length === 0) return 0;
    this.rule = `FREQ=WEEKLY${every};BYDAY=${days.join(',')}`;
    return at + taken - i;
  }

  /** Days of the week, one after the other: "monday and wednesday", "à terça e à quinta". */
  protected daysFrom(i: number): { days: string[]; taken: number } {
    const w = this.words;
    const days: string[] = [];
    const isDay = (at: number) => w.weekdays.some((names) => this.is(at, names));
    let end = i;
    for (;;) {
      let at = end;
      if (days.length > 0 && this.is(at, w.and)) at++;
      // In Portuguese each may have its own small word before it.
      if (this.known.language === 'pt' && this.is(at, PT_ON) && isDay(at + 1)) at++;
      const day = w.weekdays.findIndex((names) => this.is(at, names));
      if (day < 0) break;
      days.push(BYDAY[day] as string);
      end = at + 1;
    }
    return { days, taken: end - i };
  }

  /** The days that a repeat by weeks is on, in Portuguese said behind it: "todas as semanas à terça e à quinta". */
  protected onDays(i: number): number {
    if (this.known.language !== 'pt' || !/^FREQ=WEEKLY(?:;INTERVAL=\d+)?$/.test(this.rule ?? '')) return 0;
    const { days, taken } = this.daysFrom(i);
    if (days.length === 0) return 0;
    this.rule = `${this.rule};BYDAY=${days.join(',')}`;
    return taken;
  }

  /** A number of weeks, months ... as it is said in a repeat. */
  protected count(i: number): number | null {
    const word = this.tokens[i]?.word ?? '';
    if (/^\d{1,2}$/.test(word)) return Number(word);
    return this.known.language === 'pt' ? (PT_NUMBERS[word] ?? null) : null;
  }

  /** "de 2 em 2 semanas", "de três em três meses": every so many, as Portuguese says it. */
  protected everySoMany(i: number): number {
    const w = this.words;
    if (this.known.language !== 'pt' || this.tokens[i]?.word !== 'de' || this.tokens[i + 2]?.word !== 'em') return 0;
    const n = this.count(i + 1);
    if (n === null || n < 1 || n !== this.count(i + 3)) return 0;
    const units = [
      [w.day, 'DAILY'],
      [w.week, 'WEEKLY'],
      [w.month, 'MONTHLY'],
      [w.year, 'YEARLY'],
    ] as const;
    const freq = units.find(([names]) => this.is(i + 4, names))?.[1];
    if (!freq) return 0;
    this.rule = `FREQ=${freq}${n === 1 ? '' : `;INTERVAL=${n}`}`;
    return 5 + this.onDays(i + 5);
  }

  protected ordinal(i: number): number | null {
    const at = this.words.ordinals.findIndex((names) => this.is(i, names));
    return at < 0 ? null : at === 5 ? -1 : at + 1;
  }

  /** A weekday, a working day or a day of a month by its order. */
  protected byDay(i: number, which: number): string | null {
    const w = this.words;
    // "dia útil" is two words.
    if (this.is(i, w.day) && this.is(i + 1, w.workday)) return `BYDAY=MO,TU,WE,TH,FR;BYSETPOS=${which}`;
    const day = w.weekdays.findIndex((names) => this.is(i, names));
    if (day >= 0) return `BYDAY=${which}${BYDAY[day]}`;
    if (this.is(i, w.workday)) return `BYDAY=MO,TU,WE,TH,FR;BYSETPOS=${which}`;
    if (this.is(i, w.day)) return `BYMONTHDAY=${which}`;
    return null;
  }

  /** "the last thursday of every second month" */
  protected nthOfMonth(i: number): number {
    const w = this.words;
    const skip = this.is(i, w.on) ? 1 : 0;
    const the = this.is(i + skip, w.the) ? 1 : 0;
    const at = i + skip + the;
    const which = this.ordinal(at);
    const said = which === null ? this.dayOfMonth(at) : null;
    if (which === null && said === null) return 0;
    const by = said ?? this.byDay(at + 1, which as number);
    const of = at + (this.is(at + 1, w.day) && this.is(at + 2, w.workday) ? 3 : 2);
    if (!by || !(this.is(of, w.of) || this.tokens[of]?.word === 'of' || this.tokens[of]?.word === 'in')) return 0;
    if (!this.is(of + 1, w.every)) return 0;
    const number = this.count(of + 2);
    const second = this.is(of + 2, w.second);
    const interval = number ?? (second ? 2 : 1);
    const month = of + 2 + (number !== null || second ? 1 : 0);
    if (!this.is(month, w.month) || interval < 1) return 0;
    this.rule = `FREQ=MONTHLY${interval === 1 ? '' : `;INTERVAL=${interval}`};${by}`;
    return month + 1 - i;
  }

  /** "dia 15", of each month. */
  protected dayOfMonth(i: number): string | null {
    if (this.known.language !== 'pt' || !this.is(i, this.words.day)) return null;
    const day = Number(/^\d{1,2}$/.exec(this.tokens[i + 1]?.word ?? '')?.[0] ?? 0);
    return day >= 1 && day <= 31 ? `BYMONTHDAY=${day}` : null;
  }

  /** What follows "every month": "on the 15th", "on the last friday". */
  protected onOfMonth(i: number): { by: string; taken: number } | null {
    const skip = this.is(i, this.words.on) ? 1 : 0;
    const the = this.is(i + skip, this.words.the) ? 1 : 0;
    if (skip + the === 0) return null;
    const at = i + skip + the;
    const which = this.ordinal(at);
    const by = which === null ? null : this.byDay(at + 1, which);
    if (by) return { by, taken: skip + the + 2 };
    const date = /^(\d{1,2})(?:st|nd|rd|th)?$/.exec(this.tokens[at]?.word ?? '')?.[1];
    const months = this.words.months.some((names) => this.is(at + 1, names));
    if (date === undefined || months || Number(date) < 1 || Number(date) > 31) return null;
    return { by: `BYMONTHDAY=${Number(date)}`, taken: skip + the + 1 };
  }

  /** When a repeat ends: "until 3 june", "10 times". */
  protected limit(i: number): number {
    if (this.rule === null) return 0;
    const times = /^(\d{1,3})x?$/.exec(this.tokens[i]?.word ?? '');
    if (times && this.is(i + 1, this.words.times)) {
      this.ends = `;COUNT=${times[1]}`;
      return 2;
    }
    if (!this.is(i, this.words.until)) return 0;
    const read = this.readDate(i + 1);
    if (!read) return 0;
    this.ends = `;UNTIL=${dateText(read.day).replace(/-/g, '')}`;
    return 1 + read.taken;
  }
}

/** Whether a date is one of those that a rule names by weekday, date of the month or order in it. */
export function fallsOn(rule: string, date: number): boolean {
  const part = (name: string) => new RegExp(`${name}=([^;]+)`).exec(rule)?.[1];
  const [year, month, day] = civil(date / DAY);
  const length = (month === 12 ? dayNumber(year + 1, 1, 1) : dayNumber(year, month + 1, 1)) - dayNumber(year, month, 1);
  const monthDay = part('BYMONTHDAY');
  if (monthDay !== undefined) return Number(monthDay) === day || Number(monthDay) === day - length - 1;
  const names = (part('BYDAY') ?? '').split(',');
  const own = BYDAY[weekdayOf(date)] as string;
  const position = part('BYSETPOS');
  if (position !== undefined) {
    if (!names.includes(own)) return false;
    // Its order among the days of the month that are named.
    const step = Number(position) > 0 ? -1 : 1;
    let order = 1;
    for (let d = day + step; d >= 1 && d <= length; d += step)
      if (names.includes(BYDAY[weekdayOf(date + (d - day) * DAY)] as string)) order++;
    return order === Math.abs(Number(position));
  }
  return names.some((name) => {
    const nth = /^(-?\d+)([A-Z]{2})$/.exec(name);
    if (!nth) return name === own;
    if (nth[2] !== own) return false;
    return Number(nth[1]) > 0 ? Math.ceil(day / 7) === Number(nth[1]) : Math.ceil((length - day + 1) / 7) === 1;
  });
}
