import { dateText } from '../time/index.ts';
import { DAY } from './days.ts';
import { fallsOn, RepeatReader } from './repeat-reader.ts';
import { type Known, plain, type Token } from './tokens.ts';

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
  readonly shows: 'tentative' | 'away' | 'reachable' | 'free' | null;
  /** An RRULE's value. */
  readonly rule: string | null;
  /** Which of the calendars it goes into, as that is called among those known. */
  readonly into: string | null;
}

/** Most characters of a sentence that are read. */
const MOST = 300;

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

class Reader extends RepeatReader {
  private day: number | null = null;
  private from: number | null = null;
  private to: number | null = null;
  private length: number | null = null;
  private allDay = false;
  private place: string | null = null;
  private readonly people: string[] = [];
  private visibility: Sentence['visibility'] = null;
  private shows: Sentence['shows'] = null;
  private into: string | null = null;

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
      into: this.into,
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

  /** Reads the part that begins at a word, and answers how many words it takes; 0 where none does. */
  private part(i: number): number {
    return (
      this.intoCalendar(i) ||
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
      set(this.known.now === undefined ? 0 : this.phrase(i, w.now), () => this.beginNow()) ||
      set(this.phrase(i, w.tentative), () => {
        this.shows = 'tentative';
      }) ||
      set(this.phrase(i, w.reachable), () => {
        this.shows = 'reachable';
      }) ||
      set(this.phrase(i, w.away), () => {
        this.shows = 'away';
      }) ||
      set(this.phrase(i, w.free), () => {
        this.shows = 'free';
      })
    );
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
  /** From the next five minutes on, which may be tomorrow's first. */
  private beginNow(): void {
    const minute = Math.ceil((this.known.now ?? 0) / 5) * 5;
    this.day = this.known.today + Math.floor(minute / 1440) * DAY;
    this.from = minute % 1440;
  }

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

  /** The calendar it goes into: "into Field trips"; also "in Field trips", where no place and nobody is called so ("in May"). */
  private intoCalendar(i: number): number {
    if (this.into !== null) return 0;
    const isCalled = this.longestNamed(i + 1, this.known.places) ?? this.person(i + 1);
    const before = this.phrase(i, this.words.into) || Number(this.is(i, this.words.in) && !isCalled);
    if (before === 0) return 0;
    const known = this.longestNamed(i + before, this.known.calendars ?? []);
    if (!known) return 0;
    this.into = known.name;
    return before + known.taken;
  }

  /** Which of some names stands at a word, the longest that does. */
  private longestNamed(i: number, names: readonly string[]): { name: string; taken: number } | null {
    let found: { name: string; taken: number } | null = null;
    for (const name of names) {
      const words = plain(name).split(/\s+/).filter(Boolean);
      if (words.length <= (found?.taken ?? 0)) continue;
      if (words.every((word, n) => this.tokens[i + n]?.word === word)) found = { name, taken: words.length };
    }
    return found;
  }

  private where(i: number): number {
    const w = this.words;
    if (!this.is(i, w.at) && !this.is(i, w.in)) return 0;
    const known = this.longestNamed(i + 1, this.known.places);
    if (known) {
      this.place = known.name;
      return 1 + known.taken;
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
