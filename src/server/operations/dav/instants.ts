import { expand } from '@/core/recurrence/index.ts';
import { EARLIEST, LATEST } from '@/core/time/index.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { type Range, rangeOf, repeats, seriesOf } from '../deciding/index.ts';
import type { Instants } from './program-object.ts';

const DAY = 86_400_000;
/** What a calendar shows by itself of what is only looked at: what has just been, and the year ahead. What lies beyond is found by its time or its name. */
const BACK = 90 * DAY;
const AHEAD = 400 * DAY;
/** The longest time that is looked through for one answer. */
export const LONGEST = 1100 * DAY;
/** The days of two instants on the clock of a zone. */
export const daysOf = ({ from, to }: Instants, zone: string): Range =>
  rangeOf({ start: from, end: to, allDay: false }, zone);

/** The instants that a calendar shows by itself. */
export function shownInstants(now: number): Instants {
  const today = Math.floor(now / DAY) * DAY;
  return { from: today - BACK, to: today + AHEAD };
}

/** Instants as far as they are looked through: within the years there are, and no longer than an answer takes; of more, those around now. */
export function bounded({ from, to }: Instants, now: number): Instants {
  const [first, last] = [Math.max(from, EARLIEST), Math.min(to, LATEST)];
  if (last - first <= LONGEST) return { from: first, to: Math.max(first, last) };
  const since = Math.min(Math.max(first, now - BACK), last - LONGEST);
  return { from: since, to: since + LONGEST };
}

/** Whether an item, or one occurrence of it, is within two instants. */
export function isWithin(item: StoredItem, { from, to }: Instants): boolean {
  if (!repeats(item)) return item.start < to && (item.end > from || item.start >= from);
  const length = item.end - item.start;
  const [since, until] = [Math.max(from - length, EARLIEST), Math.min(to, LATEST)];
  return expand(seriesOf(item, []), since, until, 2).occurrences.some(({ start, end }) => end > from || start >= from);
}
