import { civil, dateText, dayNumber, parseDate } from '../time/index.ts';
import { ENGLISH, PORTUGUESE, type Words } from './words.ts';

const DAY = 86_400_000;
const BYDAY = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

/** What a typed sentence says of an item; `null` for what it says nothing about. Times are texts on the clock of whoever typed. */
export interface Sentence {
  readonly title: string;
  readonly day: string | null;
  readonly from: string | null;
  readonly to: string | null;
  /** Minutes. */
  readonly length: number | null;
  readonly allDay: boolean;
  readonly place: string | null;
  /** People by the names they have, and addresses. */
  readonly people: readonly string[];
  readonly visibility: 'private' | 'open' | 'outline' | null;
  readonly shows: 'tentative' | 'away' | 'free' | null;
  /** An RRULE's value. */
  readonly rule: string | null;
}

/** What is known of whoever types: their day (`today` as a date at midnight), language, order of dates, and the names they may mean. */
export interface Known {
  readonly today: number;
  readonly language: 'en' | 'pt';
  readonly dateOrder: 'dmy' | 'mdy' | 'ymd';
  readonly people: readonly string[];
  readonly places: readonly string[];
}

/** Most characters of a sentence that are read. */
const MOST = 300;

interface Token {
  readonly text: string;
  readonly word: string;
  /** Whether a comma follows. */
  readonly comma: boolean;
}

const plain = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase();

/**
 * Reads a sentence such as "board prep thu 2pm 90m at Ridge House with Bruno, private". Every part is found by its own words, wherever it
 * stands; what no part claims is the title. Never throws; what is no sentence about an item has an empty title.
 */
export function readSentence(text: string, known: Known): Sentence {
  const tokens = text
    .slice(0, MOST)
    .trim()
    .split(/\s+/)
    .filter(Boolean)
    .map((raw): Token => {
      const bare = raw.replace(/[,;]+$/, '');
      return { text: bare, word: plain(bare), comma: bare !== raw };
    })
    .filter((token) => token.text !== '');
  return new Reader(tokens, known).read();
}

/** Small words before a day, in Portuguese, without accents. */
const PT_ON = ['a', 'as', 'aos', 'ao', 'na', 'nas', 'no', 'nos'] as const;
/** Numbers as they are said in a repeat. */
const PT_NUMBERS: Readonly<Record<string, number>> = { dois: 2, duas: 2, tres: 3, quatro: 4, cinco: 5, seis: 6 };

class Reader {
  private readonly words: Words;
  private day: number | null = null;
  private from: number | null = null;
  private to: number | null = null;
  private length: number | null = null;
  private allDay = false;
  private place: string | null = null;
  private readonly people: string[] = [];
  private visibility: Sentence['visibility'] = null;
  private shows: Sentence['shows'] = null;
  private rule: string | null = null;
  private ends = '';

  constructor(
    private readonly tokens: readonly Token[],
    private readonly known: Known,
  ) {
    this.words = known.language === 'pt' ? PORTUGUESE : ENGLISH;
  }

  read(): Sentence {
    const title: string[] = [];
    let i = 0;
    while (i < this.tokens.length) {
      const taken = this.part(i);
      if (taken === 0) {
        const token = this.tokens[i] as Token;
        title.push(token.text + (token.comma ? ',' : ''));
        i++;
      } else i += taken;
    }
    const { from, to, length } = this;
    const end = to ?? (from !== null && length !== null ? from + length : null);
    const clock = (m: number | null) =>
      m === null ? null : `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`;
    const rule = this.rule && `${this.rule}${this.ends}`;
    return {
      title: title.join(' ').replace(/[\s,]+$/, ''),
      day: this.day === null ? this.firstOf(rule) : dateText(this.day),
      from: this.allDay ? null : clock(from),
      to: this.allDay || end === null || end >= 1440 ? null : clock(end),
      length: length ?? (from !== null && to !== null && to > from ? to - from : null),
      allDay: this.allDay,
      place: this.place,
      people: this.people,
      visibility: this.visibility,
      shows: this.shows,
      rule,
    };
  }

  /** The first day a repeat falls on, where it says which and no day was said. */
  private firstOf(rule: string | null): string | null {
    if (rule === null || !/BYDAY|BYMONTHDAY/.test(rule)) return null;
    for (let d = 0; d < 400; d++) {
      const at = this.known.today + d * DAY;
      if (fallsOn(rule, at)) return dateText(at);
    }
    return null;
  }

  private is(i: number, list: readonly string[]): boolean {
    const word = this.tokens[i]?.word;
    return word !== undefined && list.includes(word);
  }

  /** How many words from `i` make up one of some phrases. */
  private phrase(i: number, phrases: readonly string[]): number {
    for (const phrase of phrases) {
      const words = phrase.split(' ');
      if (words.every((word, n) => this.tokens[i + n]?.word === word)) return words.length;
    }
    return 0;
  }

  /** Reads the part that begins at a word, and answers how many words it takes; 0 where none does. */
  private part(i: number): number {
    return (
      this.mark(i) ||
      this.repeat(i) ||
      this.limit(i) ||
      this.lasting(i) ||
      this.date(i) ||
      this.timeOrRange(i) ||
      this.withPeople(i) ||
      this.where(i)
    );
  }

  private mark(i: number): number {
    const w = this.words;
    const set = (n: number, does: () => void): number => {
      if (n > 0) does();
      return n;
    };
    return (
      set(this.phrase(i, w.allDay), () => {
        this.allDay = true;
      }) ||
      set(this.phrase(i, w.private), () => {
        this.visibility = 'private';
      }) ||
      set(this.phrase(i, w.open), () => {
        this.visibility = 'open';
      }) ||
      set(this.phrase(i, w.outline), () => {
        this.visibility = 'outline';
      }) ||
      set(this.phrase(i, w.tentative), () => {
        this.shows = 'tentative';
      }) ||
      set(this.phrase(i, w.away), () => {
        this.shows = 'away';
      }) ||
      set(this.phrase(i, w.free), () => {
        this.shows = 'free';
      })
    );
  }

  private repeat(i: number): number {
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
  private daysFrom(i: number): { days: string[]; taken: number } {
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
  private onDays(i: number): number {
    if (this.known.language !== 'pt' || !/^FREQ=WEEKLY(?:;INTERVAL=\d+)?$/.test(this.rule ?? '')) return 0;
    const { days, taken } = this.daysFrom(i);
    if (days.length === 0) return 0;
    this.rule = `${this.rule};BYDAY=${days.join(',')}`;
    return taken;
  }

  /** A number of weeks, months ... as it is said in a repeat. */
  private count(i: number): number | null {
    const word = this.tokens[i]?.word ?? '';
    if (/^\d{1,2}$/.test(word)) return Number(word);
    return this.known.language === 'pt' ? (PT_NUMBERS[word] ?? null) : null;
  }

  /** "de 2 em 2 semanas", "de três em três meses": every so many, as Portuguese says it. */
  private everySoMany(i: number): number {
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

  private ordinal(i: number): number | null {
    const at = this.words.ordinals.findIndex((names) => this.is(i, names));
    return at < 0 ? null : at === 5 ? -1 : at + 1;
  }

  /** A weekday, a working day or a day of a month by its order. */
  private byDay(i: number, which: number): string | null {
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
  private nthOfMonth(i: number): number {
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
  private dayOfMonth(i: number): string | null {
    if (this.known.language !== 'pt' || !this.is(i, this.words.day)) return null;
    const day = Number(/^\d{1,2}$/.exec(this.tokens[i + 1]?.word ?? '')?.[0] ?? 0);
    return day >= 1 && day <= 31 ? `BYMONTHDAY=${day}` : null;
  }

  /** What follows "every month": "on the 15th", "on the last friday". */
  private onOfMonth(i: number): { by: string; taken: number } | null {
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
  private limit(i: number): number {
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

  /** How long it lasts: "90m", "1h30", "1.5h", "45 min", "for 2 hours", "half an hour". */
  private lasting(i: number): number {
    const skip = this.is(i, this.words.for) ? 1 : 0;
    const half = this.phrase(i + skip, this.words.half);
    if (half > 0) {
      this.length = 30;
      return skip + half;
    }
    const word = this.tokens[i + skip]?.word ?? '';
    const joined = /^(\d{1,2})h(\d{1,2})?m?$/.exec(word);
    const small = /^(\d{1,4})(m|min|mins)$/.exec(word);
    const part = /^(\d{1,2})[.,](\d)h$/.exec(word);
    // "14h30" after a word for a time of day is that; by itself, an hour above seven is no length.
    if (joined && (skip === 1 || this.known.language !== 'pt' || Number(joined[1]) < 8)) {
      this.length = Number(joined[1]) * 60 + Number(joined[2] ?? 0);
      return skip + 1;
    }
    if (small) {
      this.length = Number(small[1]);
      return skip + 1;
    }
    if (part) {
      this.length = Number(part[1]) * 60 + Number(part[2]) * 6;
      return skip + 1;
    }
    const number = /^(\d{1,3})(?:[.,](5))?$/.exec(word);
    if (!number) return 0;
    const value = Number(number[1]) + (number[2] ? 0.5 : 0);
    const unit = i + skip + 1;
    if (this.is(unit, this.words.minutes)) this.length = value;
    else if (this.is(unit, this.words.hours)) this.length = value * 60;
    else return 0;
    return skip + 2;
  }

  /** A time of day, or from one to another: "2pm", "at 14:00", "2-3pm", "from 9 to 10:30", "das 14 às 15". */
  private timeOrRange(i: number): number {
    const w = this.words;
    if (this.phrase(i, w.noon) || (this.is(i, w.at) && this.phrase(i + 1, w.noon)) || this.isPtNoon(i)) {
      this.from = 720;
      return this.is(i, w.noon) ? 1 : 2;
    }
    const word = this.tokens[i]?.word ?? '';
    const range = /^(\d[\d:.h]*(?:am|pm)?)[-–](\d[\d:.h]*(?:am|pm)?)$/.exec(word);
    if (range) return this.span(range[1] as string, range[2] as string, false) ? 1 : 0;
    if (this.is(i, w.from) && this.is(i + 2, w.to)) {
      const [a, b] = [this.tokens[i + 1]?.word ?? '', this.tokens[i + 3]?.word ?? ''];
      if (this.span(a, b, true)) return 4;
    }
    const said = this.is(i, w.at) ? 1 : 0;
    const first = this.tokens[i + said]?.word ?? '';
    const next = this.tokens[i + said + 1]?.word ?? '';
    const whole = next === 'am' || next === 'pm' ? `${first}${next}` : first;
    const taken = said + (whole === first ? 1 : 2);
    const from = readClock(whole, said === 1);
    if (from === null) return 0;
    if (this.is(i + taken, w.to)) {
      const to = this.tokens[i + taken + 1]?.word ?? '';
      if (this.span(whole, to, said === 1)) return taken + 2;
    }
    this.from = from;
    return taken;
  }

  private isPtNoon(i: number): boolean {
    return this.known.language === 'pt' && this.tokens[i]?.word === 'ao' && this.is(i + 1, this.words.noon);
  }

  private span(a: string, b: string, bare: boolean): boolean {
    const half = /(am|pm)$/.exec(b)?.[1] ?? '';
    const to = readClock(b, true);
    // "2-3pm" is both in the afternoon, "11-1pm" begins before noon.
    const same = half !== '' && !/(am|pm)$/.test(a) ? readClock(`${a}${half}`, true) : readClock(a, true);
    const other = readClock(a, true);
    const from = same !== null && to !== null && same < to ? same : other;
    if (from === null || to === null || to <= from) return false;
    if (!bare && !/[:h]|am|pm/.test(`${a}${b}`) && (from >= 1440 || to > 1440)) return false;
    this.from = from;
    this.to = to;
    return true;
  }

  private date(i: number): number {
    const skip = this.is(i, this.words.on) ? 1 : 0;
    const read = this.readDate(i + skip);
    if (!read) return 0;
    this.day = read.day;
    return skip + read.taken;
  }

  private readDate(i: number): { day: number; taken: number } | null {
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
      const ahead = (weekday - weekdayOf(today) + 7) % 7;
      // "next thursday" is the one of the week after this.
      const monday = today - weekdayOf(today) * DAY;
      return { day: next ? monday + (7 + weekday) * DAY : today + ahead * DAY, taken: 1 + next };
    }
    if (next && this.is(i + 1, w.week)) return { day: today - weekdayOf(today) * DAY + 7 * DAY, taken: 2 };
    return this.numericDate(i) ?? this.namedDate(i);
  }

  /** "dia 12", the next there is; "dia 12 de maio" is that one. */
  private bareDay(i: number): { day: number; taken: number } | null {
    if (this.known.language !== 'pt' || this.tokens[i]?.word !== 'dia') return null;
    const named = this.namedDate(i + 1);
    if (named) return { day: named.day, taken: named.taken + 1 };
    const wanted = Number(/^\d{1,2}$/.exec(this.tokens[i + 1]?.word ?? '')?.[0] ?? 0);
    for (let d = 0; wanted >= 1 && wanted <= 31 && d < 62; d++) {
      const at = this.known.today + d * DAY;
      if (civil(at / DAY)[2] === wanted) return { day: at, taken: 2 };
    }
    return null;
  }

  private numericDate(i: number): { day: number; taken: number } | null {
    const word = this.tokens[i]?.word ?? '';
    const iso = /^(\d{4})-(\d{2})-(\d{2})$/.exec(word);
    if (iso) return dayOf(word, 1);
    const parts = /^(\d{1,2})[/](\d{1,2})(?:[/](\d{2}|\d{4}))?$/.exec(word);
    if (!parts) return null;
    const [a, b] = [Number(parts[1]), Number(parts[2])];
    const [day, month] = this.known.dateOrder === 'mdy' ? [b, a] : [a, b];
    return this.dated(day, month, parts[3], 1);
  }

  private namedDate(i: number): { day: number; taken: number } | null {
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
  private dated(day: number, month: number, year: string | undefined, taken: number) {
    const pad = (n: number) => String(n).padStart(2, '0');
    const [now] = civil(this.known.today / DAY);
    const said = year === undefined ? now : Number(year.length === 2 ? `20${year}` : year);
    const first = dayOf(`${said}-${pad(month)}-${pad(day)}`, taken);
    if (year !== undefined || !first || first.day >= this.known.today) return first;
    return dayOf(`${said + 1}-${pad(month)}-${pad(day)}`, taken);
  }

  private withPeople(i: number): number {
    if (!this.is(i, this.words.with)) return 0;
    let at = i + 1;
    // "com o Bruno e a Amara"
    const article = (n: number) =>
      this.known.language === 'pt' && /^[oa]s?$/.test(this.tokens[n]?.word ?? '') && this.person(n + 1) ? 1 : 0;
    at += article(at);
    const found: string[] = [];
    for (;;) {
      const person = this.person(at);
      if (!person) break;
      found.push(person.name);
      at += person.taken;
      if (this.is(at, this.words.and) && this.person(at + 1)) at++;
      else if (this.is(at, this.words.and) && article(at + 1)) at += 2;
    }
    if (found.length === 0) return 0;
    for (const name of found) if (!this.people.includes(name)) this.people.push(name);
    return at - i;
  }

  /** Somebody by the beginning of their name, in as many words as fit, or an address. */
  private person(i: number): { name: string; taken: number } | null {
    const token = this.tokens[i];
    if (!token) return null;
    if (/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(token.text)) return { name: token.text, taken: 1 };
    for (let taken = 3; taken > 0; taken--) {
      const said = this.tokens.slice(i, i + taken);
      // A comma ends a name.
      if (said.length < taken || said.slice(0, -1).some((t) => t.comma)) continue;
      const words = said.map((t) => t.word);
      const fits = this.known.people.filter((name) => {
        const own = plain(name).split(/\s+/);
        const whole = own.slice(0, taken).join(' ') === words.join(' ');
        return whole || (taken === 1 && (words[0]?.length ?? 0) > 2 && own.at(-1) === words[0]);
      });
      // Only where one alone can be meant.
      if (fits.length === 1) return { name: fits[0] as string, taken };
    }
    return null;
  }

  private where(i: number): number {
    const w = this.words;
    if (!this.is(i, w.at) && !this.is(i, w.in)) return 0;
    const known = [...this.known.places].sort((a, b) => b.length - a.length);
    for (const place of known) {
      const words = plain(place).split(/\s+/);
      if (words.every((word, n) => this.tokens[i + 1 + n]?.word === word)) {
        this.place = place;
        return 1 + words.length;
      }
    }
    // What isn't known is a place where it is written as a name.
    let at = i + 1;
    const said: string[] = [];
    while (at < this.tokens.length) {
      const token = this.tokens[at] as Token;
      if (!/^\p{Lu}/u.test(token.text)) break;
      said.push(token.text);
      at++;
      if (token.comma) break;
    }
    if (said.length === 0 || this.place !== null) return 0;
    this.place = said.join(' ');
    return at - i;
  }
}

/** Whether a date is one of those that a rule names by weekday, date of the month or order in it. */
function fallsOn(rule: string, date: number): boolean {
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

/** The weekday of a date from 0, Monday. */
const weekdayOf = (date: number): number => (Math.floor(date / DAY) + 3) % 7;

function dayOf(text: string, taken: number): { day: number; taken: number } | null {
  const day = parseDate(text);
  return day === null ? null : { day, taken };
}

/** Minutes of the day; a bare number is an hour only where it is said to be one. */
function readClock(word: string, said: boolean): number | null {
  const parts = /^(\d{1,2})(?:(?::|\.|h)(\d{2}))?(h)?(am|pm)?$/.exec(word);
  if (!parts) return null;
  const [, hour = '', minute, h, half] = parts;
  if (minute === undefined && h === undefined && half === undefined && !said) return null;
  if (/\./.test(word) && !said && half === undefined) return null;
  let at = Number(hour);
  if (half !== undefined) {
    if (at < 1 || at > 12) return null;
    at = (at % 12) + (half === 'pm' ? 12 : 0);
  }
  const minutes = at * 60 + Number(minute ?? 0);
  return at <= 23 && Number(minute ?? 0) < 60 ? minutes : null;
}
