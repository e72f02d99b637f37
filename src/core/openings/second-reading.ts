import { fromWall, parseDate, parseInstant, toWall } from '../time/index.ts';
import type { Journey, Movable, OpeningsPerson, OpeningsRequest } from './request.ts';

/*
 * The rule of openings read a second time, as slowly as it is written: minute by minute, with sets of minutes and nothing shared with the
 * search itself. For tests only.
 */
const MINUTE = 60_000;
const DAY = 86_400_000;

/** A wall-clock time through a zone, found by walking the minutes of two days. */
function through(zone: string, wall: number): number {
  const known = fromWall(zone, wall);
  if (known !== null) return known / MINUTE;
  for (let at = (wall - DAY) / MINUTE; at < (wall + DAY) / MINUTE; at++)
    if (toWall(zone, at * MINUTE) > wall && toWall(zone, (at - 1) * MINUTE) < wall) return at;
  throw new Error('no such time');
}

const hm = (text: string) => Number(text.slice(0, 2)) * 60 * MINUTE + Number(text.slice(3, 5)) * MINUTE;
const date = (zone: string, minute: number) => Math.floor(toWall(zone, minute * MINUTE) / DAY) * DAY;
/** The first of January 1970 was a Thursday. */
const weekday = (d: number) => ((((d / DAY + 3) % 7) + 7) % 7) + 1;
const place = (text: string | null | undefined) => (text ?? '').trim().toLowerCase();

type Minutes = Set<number>;
const add = (set: Minutes, from: number, to: number) => {
  for (let m = from; m < to; m++) set.add(m);
};
const any = (set: Minutes, from: number, to: number) => {
  for (let m = from; m < to; m++) if (set.has(m)) return true;
  return false;
};
const all = (set: Minutes, from: number, to: number) => {
  for (let m = from; m < to; m++) if (!set.has(m)) return false;
  return true;
};

interface Whole {
  readonly hard: Minutes;
  readonly items: readonly { from: number; to: number; place: string; allDay: boolean }[];
  readonly there: Minutes;
  readonly open: Minutes | null;
}

function wholeOf(p: OpeningsPerson, r: OpeningsRequest): Whole {
  const hard: Minutes = new Set();
  const there: Minutes = new Set();
  const items: Whole['items'][number][] = [];
  if (p.known)
    for (const i of p.items) {
      const from = i.allDay ? through(p.zone, parseDate(i.start) ?? 0) : (parseInstant(i.start) ?? 0) / MINUTE;
      const to = i.allDay ? through(p.zone, parseDate(i.end) ?? 0) : (parseInstant(i.end) ?? 0) / MINUTE;
      if (i.kind === 'whereabouts') {
        if (place(i.place) === place(r.place)) add(there, from, to);
      } else if (i.shows === 'busy' || i.shows === 'away' || (i.shows === 'tentative' && r.tentative === 'blocks')) {
        add(hard, from, to);
        if (to > from) items.push({ from, to, place: place(i.place), allDay: i.allDay });
      }
    }
  let open: Minutes | null = null;
  if (p.hours !== null) {
    open = new Set();
    for (let d = date(p.zone, r.from) - 2 * DAY; d <= date(p.zone, r.until) + 2 * DAY; d += DAY)
      for (const [a, b] of p.hours[weekday(d) - 1] ?? [])
        add(open, through(p.zone, d + hm(a)), through(p.zone, d + hm(b)));
  }
  return { hard, items, there, open };
}

/** Every opening, by looking at each minute there is. */
export function slowOpenings(
  r: OpeningsRequest,
  people: readonly OpeningsPerson[],
  journeys: readonly Journey[],
  movable: readonly Movable[] = [],
): number[] {
  const whole = new Map(people.map((p) => [p.id, wholeOf(p, r)]));
  for (const m of movable)
    for (const p of people)
      if (p.known && m.people.includes(p.id)) add((whole.get(p.id) as Whole).hard, m.start, m.start + m.length);
  const starts: number[] = [];
  for (let s = r.from; s + r.length <= r.until; s++) if (isOpening(r, people, whole, journeys, s)) starts.push(s);
  return starts;
}

function isOpening(
  r: OpeningsRequest,
  people: readonly OpeningsPerson[],
  whole: ReadonlyMap<string, Whole>,
  journeys: readonly Journey[],
  s: number,
): boolean {
  const end = s + r.length;
  if (r.now + r.notice > s) return false;
  const wall = toWall(r.zone, s * MINUTE);
  if (Math.floor((wall % DAY) / MINUTE) % r.grid !== 0) return false;
  const go = (a: string, b: string) => {
    if (a === b) return 0;
    const rows = journeys.filter(([x, y]) => (place(x) === a && place(y) === b) || (place(x) === b && place(y) === a));
    return Math.max(0, ...rows.map(([, , minutes]) => minutes));
  };
  for (const p of people.filter((one) => one.need === 'must')) {
    const w = whole.get(p.id) as Whole;
    if (p.known && any(w.hard, s - r.padBefore, end + r.padAfter)) return false;
    if (r.within === 'hours' && w.open && !all(w.open, s, end)) return false;
    if (!p.known) continue;
    if (place(r.place) !== '') {
      const at = w.items.filter((i) => !i.allDay && i.place !== '');
      const ended = at.filter((i) => i.to <= s);
      const last = Math.max(...ended.map((i) => i.to));
      if (ended.some((i) => i.to === last && s - i.to < go(i.place, place(r.place)))) return false;
      const begins = at.filter((i) => i.from >= end);
      const first = Math.min(...begins.map((i) => i.from));
      if (begins.some((i) => i.from === first && i.from - end < go(place(r.place), i.place))) return false;
    }
    if (p.keeps.some((preference) => preference.hard && breaks(preference, p.zone, w.hard, s, end))) return false;
  }
  if (place(r.place) !== '')
    for (const id of r.at) {
      const p = people.find((one) => one.id === id);
      if (!p?.known || !all((whole.get(id) as Whole).there, s, end)) return false;
    }
  return true;
}

function breaks(
  preference: OpeningsPerson['keeps'][number],
  zone: string,
  hard: Minutes,
  s: number,
  end: number,
): boolean {
  const taken = (m: number) => hard.has(m) || (m >= s && m < end);
  const touched = new Set<number>();
  for (let m = s; m < end; m++) touched.add(date(zone, m));
  const stretch = (from: number, to: number, is: (m: number) => boolean) => {
    let longest = 0;
    let run = 0;
    for (let m = from; m < to; m++) {
      run = is(m) ? 0 : run + 1;
      longest = Math.max(longest, run);
    }
    return longest;
  };
  if (preference.kind === 'span') {
    for (let d = date(zone, s) - 2 * DAY; d <= date(zone, end) + 2 * DAY; d += DAY) {
      if (!preference.days.includes(weekday(d))) continue;
      const [a, b] = [through(zone, d + hm(preference.from)), through(zone, d + hm(preference.to))];
      for (let m = s; m < end; m++) if (m >= a && m < b) return true;
    }
    return false;
  }
  if (preference.kind === 'rest')
    return [...touched].some((d) => {
      if (!preference.days.includes(weekday(d))) return false;
      const [a, b] = [through(zone, d + hm(preference.from)), through(zone, d + hm(preference.to))];
      return stretch(a, b, taken) < preference.minutes && stretch(a, b, (m) => hard.has(m)) >= preference.minutes;
    });
  if (preference.kind === 'most')
    return [...touched].some((d) => {
      const [a, b] = [through(zone, d), through(zone, d + DAY)];
      let sum = 0;
      for (let m = a; m < b; m++) sum += Number(taken(m));
      return sum > preference.minutes;
    });
  let from = s;
  let to = end;
  const [low, high] = [s - 1440, end + 1440];
  for (let gap = 0, m = s - 1; m >= low; m--) {
    gap = taken(m) ? 0 : gap + 1;
    if (gap >= preference.minutes && gap > 0) break;
    if (taken(m)) from = m;
  }
  for (let gap = 0, m = end; m < high; m++) {
    gap = taken(m) ? 0 : gap + 1;
    if (gap >= preference.minutes && gap > 0) break;
    if (taken(m)) to = m + 1;
  }
  return to - from > preference.after;
}
