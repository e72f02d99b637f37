import { weekdayOf as fromMonday, fromWall, offsetAt, toWall, transitions } from '../time/index.ts';

export { merged } from '../time/index.ts';

import type { Span } from './request.ts';

const MINUTE = 60_000;
const DAY_MS = 86_400_000;
export const DAY = 1440;

/**
 * The minute (since the epoch) at which a zone's clocks show a wall-clock time (milliseconds as if UTC): where it comes twice the first,
 * where a clock change leaves it out the change itself.
 */
export function minuteAt(zone: string, wall: number): number {
  const at = fromWall(zone, wall);
  if (at !== null) return at / MINUTE;
  const near = transitions(zone, wall - 2 * DAY_MS, wall + 2 * DAY_MS, 8);
  const change = near.find((t) => t + offsetAt(zone, t - 1) <= wall && wall < t + offsetAt(zone, t));
  return (change ?? wall - offsetAt(zone, wall - DAY_MS)) / MINUTE;
}

/** The local date (milliseconds as if UTC, at midnight) of a minute in a zone. */
export function dateOf(zone: string, minute: number): number {
  return Math.floor(toWall(zone, minute * MINUTE) / DAY_MS) * DAY_MS;
}

/** The weekday of a date, from 1, Monday. */
export const weekdayOf = (date: number): number => fromMonday(date) + 1;

/** `HH:MM`, up to `24:00`, as milliseconds of a day. */
const wallOf = (text: string): number => (Number(text.slice(0, 2)) * 60 + Number(text.slice(3, 5))) * MINUTE;

/** A wall-clock range of a date, put through a zone. Empty where a clock change leaves nothing of it. */
export function rangeOn(zone: string, date: number, from: string, to: string): Span {
  return [minuteAt(zone, date + wallOf(from)), minuteAt(zone, date + wallOf(to))];
}

/** A date from its midnight to the next, in a zone. */
export const dayOn = (zone: string, date: number): Span => [minuteAt(zone, date), minuteAt(zone, date + DAY_MS)];

/** Every local date that some minutes touch. */
export function datesOf(zone: string, [from, to]: Span): number[] {
  const dates: number[] = [];
  for (let date = dateOf(zone, from) - DAY_MS; date <= dateOf(zone, to) + DAY_MS; date += DAY_MS) {
    const [a, b] = dayOn(zone, date);
    if (a < to && b > from) dates.push(date);
  }
  return dates;
}

/** Whether an interval meets any of some merged ones. */
export function meets(list: readonly Span[], from: number, to: number): boolean {
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((list[middle] as Span)[1] > from) high = middle;
    else low = middle + 1;
  }
  const next = list[low];
  return next !== undefined && next[0] < to && from < to;
}

/** Whether an interval lies inside one of some merged ones. */
export function inside(list: readonly Span[], from: number, to: number): boolean {
  return list.some(([a, b]) => a <= from && to <= b);
}

/** How many minutes of an interval some merged ones take. */
export function takenIn(list: readonly Span[], from: number, to: number): number {
  let sum = 0;
  for (const [a, b] of list) sum += Math.max(0, Math.min(b, to) - Math.max(a, from));
  return sum;
}

/** The longest stretch of an interval that some merged ones leave. */
export function longestFree(list: readonly Span[], from: number, to: number): number {
  let at = from;
  let longest = 0;
  for (const [a, b] of list) {
    if (b <= from || a >= to) continue;
    longest = Math.max(longest, a - at);
    at = Math.max(at, b);
  }
  return Math.max(longest, to - at);
}

/** The minutes in `[from, to]` at which a meeting may begin by the grid of a zone's clock; counting begins anew at each midnight. */
export function gridStarts(zone: string, grid: number, from: number, to: number, budget: number) {
  const starts: number[] = [];
  const changes = transitions(zone, from * MINUTE, (to + 1) * MINUTE, 10_000).map((t) => t / MINUTE);
  let at = Math.ceil(from);
  for (const until of [...changes, to + 1]) {
    const offset = offsetAt(zone, at * MINUTE) / MINUTE;
    while (at < until && at <= to) {
      const wall = at + offset;
      const day = Math.floor(wall / DAY) * DAY;
      const minute = wall - day;
      const next = Math.ceil(minute / grid) * grid;
      if (next >= DAY) at = day + DAY - offset;
      else if (next > minute) at += next - minute;
      else {
        if (starts.length >= budget) return { starts, cut: true };
        starts.push(at);
        at += Math.min(grid, DAY - minute);
      }
    }
    // A step may have led past the change: what lies behind it is looked at on its own clock.
    at = Math.ceil(until);
  }
  return { starts, cut: false };
}
