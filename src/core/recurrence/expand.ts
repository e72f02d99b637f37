import { fromWall, fromWallLenient, parseDate, parseWall, toWall } from '../time/index.ts';
import { type Rule, wallStarts } from './rule.ts';

/**
 * How long each occurrence is: whole days on the wall clock, then milliseconds exactly. An end given as a time is exact, a
 * DURATION in days or weeks is nominal (RFC 5545 3.3.6, 3.8.5.3).
 */
export interface Length {
  readonly days: number;
  readonly ms: number;
}

/** A repeating item as expansion needs it. Times are wall-clock milliseconds; `zone` is ignored for all-day items. */
export interface Series {
  readonly startWall: number;
  readonly length: Length;
  readonly allDay: boolean;
  readonly zone: string;
  readonly rule: Rule | null;
  readonly added: readonly string[];
  readonly left: readonly string[];
}

/** One occurrence: instants in epoch milliseconds (for all-day items, day starts as if UTC) and its wall-clock start. */
export interface Occurrence {
  readonly start: number;
  readonly end: number;
  readonly wall: number;
}

const DAY = 86_400_000;

/** Wall-clock milliseconds of a recurrence text: a date for all-day items, otherwise a date and time. */
function recurrenceWall(text: string): number | null {
  return text.includes('T') ? parseWall(text) : parseDate(text);
}

/** The instant at which something of a length ends that starts at an instant, `wall` on the zone's clock. */
export function endOf(zone: string, start: number, wall: number, length: Length): number {
  return (length.days === 0 ? start : fromWallLenient(zone, wall + length.days * DAY)) + length.ms;
}

/**
 * The occurrences of a series that start in `[from, to)` (epoch milliseconds), in order, at most `budget`; the walk begins where
 * the range does. A wall-clock time of the rule that a clock change leaves out is skipped and counts for nothing; the series' own
 * start and an added date are moved on by the gap (RFC 5545 3.3.5). `cut` says that the budget ended the list.
 */
export function expand(
  series: Series,
  from: number,
  to: number,
  budget: number,
): { readonly occurrences: readonly Occurrence[]; readonly cut: boolean } {
  const { startWall, zone, allDay, length } = series;
  const wallFrom = allDay ? from : toWall(zone, from) - DAY;
  const wallTo = allDay ? to : toWall(zone, to) + DAY;
  const walls = new Set<number>();
  // Starts of the day on either side may lie outside the range and are dropped below, so some more than the budget are asked for.
  const most = budget + 50;
  let cut = false;
  if (series.rule) {
    const found = wallStarts(series.rule, startWall, wallFrom, wallTo, most, allDay ? null : zone);
    cut = found.cut;
    for (const wall of found.walls) walls.add(wall);
  }
  // A start that was given as a time, not computed by a rule, stays even where clocks skip it.
  const given = new Set([startWall]);
  for (const text of series.added) {
    const wall = recurrenceWall(text);
    if (wall !== null) given.add(wall);
  }
  for (const wall of given) walls.add(wall);
  for (const text of series.left) {
    const wall = recurrenceWall(text);
    if (wall !== null) walls.delete(wall);
  }
  const occurrences: Occurrence[] = [];
  for (const wall of walls) {
    if (wall < wallFrom || wall >= wallTo) continue;
    const start = allDay ? wall : given.has(wall) ? fromWallLenient(zone, wall) : fromWall(zone, wall);
    if (start === null || start < from || start >= to) continue;
    const end = allDay ? wall + length.days * DAY + length.ms : Math.max(start, endOf(zone, start, wall, length));
    occurrences.push({ start, end, wall });
  }
  occurrences.sort((a, b) => a.start - b.start);
  return occurrences.length > budget ? { occurrences: occurrences.slice(0, budget), cut: true } : { occurrences, cut };
}
