import { journeyMinutes, samePlace } from '../openings/index.ts';
import type { DeskItem } from './facts.ts';

/** An occurrence with its instants: an all-day one from midnight to midnight of the principal's zone. */
export interface Timed {
  readonly item: DeskItem;
  readonly from: number;
  readonly to: number;
}

/** Whether an occurrence takes its principal's time. */
export const blocks = ({ shows, kind, cancelled, answer }: DeskItem): boolean =>
  shows !== 'free' && shows !== 'reachable' && kind !== 'whereabouts' && !cancelled && answer !== 'declined';

/** Times of one set of holds, and occurrences of one UID, never stand in each other's way. */
const areOne = (a: DeskItem, b: DeskItem): boolean => (!!a.set && a.set === b.set) || (!!a.uid && a.uid === b.uid);

/** When two occurrences begin to share time, and when they cease to; `null` where they share none. */
export function shared(a: Timed, b: Timed): { readonly from: number; readonly to: number } | null {
  const from = Math.max(a.from, b.from);
  const to = Math.min(a.to, b.to);
  return from < to && !areOne(a.item, b.item) ? { from, to } : null;
}

/** By start, then by id. */
const byStart = (a: Timed, b: Timed): number => a.from - b.from || byCodePoints(a.item.id, b.item.id);

/** Texts in the order of their code points, which isn't that of their UTF-16 units. */
export function byCodePoints(a: string, b: string): number {
  if (a === b) return 0;
  let i = 0;
  while (a.charCodeAt(i) === b.charCodeAt(i)) i++;
  const [x, y] = [a.charCodeAt(i), b.charCodeAt(i)];
  // One is the beginning of the other.
  if (Number.isNaN(x) || Number.isNaN(y)) return a.length - b.length;
  if (!isHalf(x) && !isHalf(y)) return x - y;
  const points = (text: string) => Array.from(text, (one) => one.codePointAt(0) ?? 0);
  const [p, q] = [points(a), points(b)];
  const at = p.findIndex((point, n) => point !== q[n]);
  return (p[at] ?? 0) - (q[at] ?? 0);
}

/** Whether a UTF-16 unit is half of a code point. */
const isHalf = (unit: number): boolean => unit >= 0xd800 && unit < 0xe000;

/** Occurrences that hang together by shared time, and the first instant two of them share. */
export interface Clash {
  readonly items: readonly Timed[];
  readonly first: number;
}

/**
 * The clashes among blocking occurrences that share time in `[from, until)`. What hangs together by such sharing is one clash; an all-day
 * occurrence clashes with each it shares with by itself, and joins nothing.
 */
export function clashesOf(blocking: readonly Timed[], from: number, until: number): Clash[] {
  const sorted = [...blocking].sort(byStart);
  const inWindow = (a: Timed, b: Timed): boolean => {
    const both = shared(a, b);
    return both !== null && both.from < until && both.to > from;
  };
  const clashes: Clash[] = [];
  // Which occurrence stands for all that hang together with one; each for itself at first.
  const heads = sorted.map((_, i) => i);
  const headOf = (i: number): number => {
    let at = i;
    while (heads[at] !== at) {
      heads[at] = heads[heads[at] as number] as number;
      at = heads[at] as number;
    }
    return at;
  };
  // Those that may still share time with what begins later.
  let open: number[] = [];
  for (const [i, one] of sorted.entries()) {
    open = open.filter((j) => (sorted[j] as Timed).to > one.from);
    for (const j of open) {
      const other = sorted[j] as Timed;
      if (!inWindow(other, one)) continue;
      if (one.item.allDay || other.item.allDay) clashes.push({ items: [other, one], first: one.from });
      else heads[headOf(i)] = headOf(j);
    }
    open.push(i);
  }
  const groups = new Map<number, Timed[]>();
  for (const [i, one] of sorted.entries()) {
    const head = headOf(i);
    const group = groups.get(head);
    if (group) group.push(one);
    else groups.set(head, [one]);
  }
  for (const items of groups.values()) if (items.length > 1) clashes.push({ items, first: firstShared(items) });
  return clashes;
}

/** The first instant that two of some occurrences share, which may be past; they come by start, and at least two share time. */
function firstShared(items: readonly Timed[]): number {
  const first = items.find((one, i) => items.slice(0, i).some((before) => shared(before, one)));
  return (first as Timed).from;
}

/** Two occurrences that follow each other at two places, with too little time between for the way. */
export interface ShortWay {
  readonly from: Timed;
  readonly to: Timed;
  /** Minutes of the way, and minutes there are. */
  readonly needs: number;
  readonly has: number;
}

/** Of the occurrences that end in `[now, until)` at a place, those whose way to the next place takes longer than the time before it. */
export function shortWays(
  blocking: readonly Timed[],
  travel: readonly (readonly [string, string, number])[],
  now: number,
  until: number,
): ShortWay[] {
  const minutes = journeyMinutes(travel);
  const placed = blocking
    .filter(({ item, from, to }) => !item.allDay && to > from && samePlace(item.place) !== '')
    .sort(byStart);
  return placed.flatMap((one, i): ShortWay[] => {
    if (one.to < now || one.to >= until) return [];
    let n = i + 1;
    // They come by start, and each takes some time: what begins after its end stands behind it.
    while (n < placed.length && ((placed[n] as Timed).from < one.to || areOne(one.item, (placed[n] as Timed).item)))
      n++;
    const next = placed[n];
    if (!next) return [];
    const needs = minutes(samePlace(one.item.place), samePlace(next.item.place));
    const has = Math.floor((next.from - one.to) / 60_000);
    return needs > has ? [{ from: one, to: next, needs, has }] : [];
  });
}
