import { fromWall, fromWallLenient, parseDate, parseWall, toWall } from '../time/index.ts';
import { type Rule, wallStarts } from './rule.ts';

/** A repeating item as expansion needs it. Times are wall-clock milliseconds; `zone` is ignored for all-day items. */
export interface Series {
  readonly startWall: number;
  readonly endWall: number;
  readonly allDay: boolean;
  readonly zone: string;
  readonly rule: Rule | null;
  readonly added: readonly string[];
  readonly left: readonly string[];
}

/** One happening: instants in epoch milliseconds (for all-day items, day starts as if UTC) and its wall-clock start. */
export interface Occurrence {
  readonly start: number;
  readonly end: number;
  readonly wall: number;
}

const DAY = 86_400_000;

/** Wall-clock milliseconds of a recurrence text: a date for all-day items, otherwise a date and time. */
export function recurrenceWall(text: string): number | null {
  return text.includes('T') ? parseWall(text) : parseDate(text);
}

/**
 * The happenings of a series that start in `[from, to)` (epoch milliseconds), in order, at most `budget`. A wall-clock
 * time that a clock change leaves out is skipped. `cut` says that the budget ended the list.
 */
export function expand(
  series: Series,
  from: number,
  to: number,
  budget: number,
): { readonly occurrences: readonly Occurrence[]; readonly cut: boolean } {
  const { startWall, zone, allDay } = series;
  const length = series.endWall - startWall;
  const wallFrom = allDay ? from : toWall(zone, from) - DAY;
  const wallTo = allDay ? to : toWall(zone, to) + DAY;
  const walls = new Set<number>();
  let cut = false;
  if (series.rule) {
    const found = wallStarts(series.rule, startWall, Math.max(wallFrom, startWall), wallTo, budget + 1);
    cut = found.length > budget;
    for (const wall of cut ? found.slice(0, budget) : found) walls.add(wall);
  } else walls.add(startWall);
  for (const text of series.added) {
    const wall = recurrenceWall(text);
    if (wall !== null) walls.add(wall);
  }
  for (const text of series.left) {
    const wall = recurrenceWall(text);
    if (wall !== null) walls.delete(wall);
  }
  const occurrences: Occurrence[] = [];
  for (const wall of walls) {
    if (wall < wallFrom || wall >= wallTo) continue;
    const start = allDay
      ? wall
      : series.rule || wall !== startWall
        ? fromWall(zone, wall)
        : fromWallLenient(zone, wall);
    if (start === null || start < from || start >= to) continue;
    const end = allDay ? wall + length : Math.max(start, fromWallLenient(zone, wall + length));
    occurrences.push({ start, end, wall });
  }
  return { occurrences: occurrences.sort((a, b) => a.start - b.start), cut };
}
