import { expand, type Rule, recurrenceWall, type Series } from '@/core/recurrence/index.ts';
import { toWall } from '@/core/time/index.ts';
import type { Connection } from '../db/index.ts';
import { type Calendar, calendarsIndexedBefore, setIndexedUntil } from '../repositories/calendars.ts';
import { repeatingItems, replacementsOf, type StoredItem } from '../repositories/items.ts';
import { type Happening, reindex } from '../repositories/occurrences.ts';

const DAY = 86_400_000;
const YEAR = 366 * DAY;
/** How far ahead repeats without end stand in the index, and how close to its edge it is moved on. */
export const AHEAD = 2 * YEAR;
const MARGIN = YEAR;
/** No reading moves the index further than this from now. */
const FURTHEST = 20 * YEAR;
const MOST_HAPPENINGS = 30_000;

/** A stored item as expansion reads it, the happenings that have items of their own left out. */
export function seriesOf(item: StoredItem, replaced: readonly string[]): Series {
  return {
    startWall: item.allDay ? item.start : toWall(item.zone, item.start),
    endWall: item.allDay ? item.end : toWall(item.zone, item.start) + lengthOf(item),
    allDay: item.allDay,
    zone: item.zone,
    rule: item.rule === null ? null : ({ kind: 'rule', text: item.rule } satisfies Rule),
    added: item.added,
    left: [...item.left, ...replaced],
  };
}

function lengthOf(item: StoredItem): number {
  return toWall(item.zone, item.end) - toWall(item.zone, item.start);
}

/** Everything that happens of an item up to an instant. */
export function happeningsOf(db: Connection, item: StoredItem, until: number): readonly Happening[] {
  if (item.removedAt !== null) return [];
  if (item.rule === null && item.added.length === 0) return [{ start: item.start, end: item.end }];
  const replaced = replacementsOf(db, item.id).map((r) => r.recurrence as string);
  const walls = item.added.map((text) => recurrenceWall(text) ?? item.start);
  const from = Math.min(item.start, ...walls) - DAY;
  return expand(seriesOf(item, replaced), from, until, MOST_HAPPENINGS).occurrences;
}

/** Writes an item's happenings into the index, as far as its calendar's index goes. Call it where the item is written. */
export function indexItem(db: Connection, calendar: Calendar, item: StoredItem): void {
  reindex(db, calendar.id, item.id, item.allDay, happeningsOf(db, item, calendar.indexedUntil));
}

/** Moves a calendar's index on to an instant. */
function extendIndex(db: Connection, calendar: Calendar, until: number): void {
  db.write(() => {
    setIndexedUntil(db, calendar.id, until);
    for (const item of repeatingItems(db, calendar.id))
      reindex(db, calendar.id, item.id, item.allDay, happeningsOf(db, item, until));
  });
}

/**
 * Makes sure that a calendar's index reaches an instant someone asks about, as far as 20 years from now; answers whether
 * it does.
 */
export function reach(db: Connection, calendar: Calendar, until: number, now: number): boolean {
  if (calendar.indexedUntil >= until) return true;
  const goal = Math.min(until + YEAR, now + FURTHEST);
  if (goal > calendar.indexedUntil) extendIndex(db, calendar, goal);
  return until <= goal;
}

/** Moves on every index that has come near its edge. Run at the start and once an hour. */
export function moveHorizons(db: Connection, now: number): number {
  const due = calendarsIndexedBefore(db, now + AHEAD - MARGIN);
  for (const calendar of due) extendIndex(db, calendar, now + AHEAD);
  return due.length;
}
