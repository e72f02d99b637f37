import { expand, type Rule, type Series } from '@/core/recurrence/index.ts';
import { fromWallLenient, parseDate, parseWall, toWall } from '@/core/time/index.ts';
import type { Connection } from '../../../db/index.ts';
import { type Calendar, calendarsIndexedBefore, setIndexed } from '../../../repositories/calendars.ts';
import { itemById, repeatingIds, replacementsOf } from '../../../repositories/items.ts';
import {
  addToIndex,
  countOccurrences,
  type IndexedOccurrence,
  reindex,
  trimIndex,
} from '../../../repositories/occurrences.ts';
import type { StoredItem } from '../../../repositories/stored-item.ts';
import { type Refusal, refuse } from '../../../result.ts';
import { MOST_OCCURRENCES_IN_CALENDAR, MOST_OCCURRENCES_OF_ITEM } from '../budgets.ts';

const DAY = 86_400_000;
const YEAR = 366 * DAY;
/** How far ahead and back repeats stand in the index, and how close to its edge it is moved on. */
export const AHEAD = 2 * YEAR;
export const BACK = 2 * YEAR;
const MARGIN = YEAR;

export const repeats = (item: Pick<StoredItem, 'rule' | 'added'>): boolean =>
  item.rule !== null || item.added.length > 0;

/** When an item happens. */
type Timed = Pick<StoredItem, 'start' | 'end' | 'wall' | 'days' | 'allDay' | 'zone' | 'rule' | 'added' | 'left'>;

/** A stored item as expansion reads it, the occurrences that have items of their own left out. */
export function seriesOf(item: Timed, replaced: readonly string[]): Series {
  const exact = item.end - item.start;
  // Whole days of a length are added on the wall clock, the rest exactly.
  const days = item.allDay ? Math.round(exact / DAY) : item.days;
  return {
    startWall: item.wall ?? (item.allDay ? item.start : toWall(item.zone, item.start)),
    length: { days, ms: item.allDay ? 0 : item.days === 0 ? exact : restOf(item) },
    allDay: item.allDay,
    zone: item.zone,
    rule: item.rule === null ? null : ({ kind: 'rule', text: item.rule } satisfies Rule),
    added: item.added,
    left: [...item.left, ...replaced],
  };
}

/** What a length has beside its days of the clock. */
function restOf(item: Timed): number {
  const wall = toWall(item.zone, item.end) - toWall(item.zone, item.start);
  return wall - item.days * DAY;
}

/** What happens of an item from one instant to another. */
export function occurrencesBetween(
  db: Connection,
  item: StoredItem,
  from: number,
  until: number,
): readonly IndexedOccurrence[] {
  if (item.removedAt !== null) return [];
  if (!repeats(item)) return item.start >= from && item.start < until ? [{ start: item.start, end: item.end }] : [];
  const replaced = replacementsOf(db, item.id).map((r) => r.recurrence as string);
  return expand(seriesOf(item, replaced), from, until, MOST_OCCURRENCES_OF_ITEM).occurrences;
}

/** What the index holds of an item: all of a single one, of a repeat what lies in its calendar's years. */
function indexed(db: Connection, calendar: Calendar, item: StoredItem): readonly IndexedOccurrence[] {
  if (item.removedAt === null && !repeats(item)) return [{ start: item.start, end: item.end }];
  return occurrencesBetween(db, item, calendar.indexedFrom, calendar.indexedUntil);
}

/** Series whose occurrences are written once, at the end of a write that touches them many times. */
const waiting = new WeakMap<Connection, Map<number, Calendar>>();

/** Writes an item's occurrences into the index, as far as its calendar's index goes. Call it where the item is written. */
export function indexItem(db: Connection, calendar: Calendar, item: StoredItem): void {
  const later = repeats(item) ? waiting.get(db) : undefined;
  if (later) later.set(item.id, calendar);
  else reindex(db, calendar.id, item.id, item.allDay, indexed(db, calendar, item));
}

/** Does a write that touches a series many times, and writes its occurrences once, in the same transaction. */
export function indexingOnce<T>(db: Connection, work: () => T): T {
  if (waiting.has(db)) return work();
  const later = new Map<number, Calendar>();
  waiting.set(db, later);
  let done: T;
  try {
    done = work();
  } finally {
    waiting.delete(db);
  }
  for (const [id, calendar] of later) {
    const item = itemById(db, id);
    if (item) reindex(db, calendar.id, id, item.allDay, indexed(db, calendar, item));
  }
  return done;
}

/** The occurrence of a series that starts at an instant; `undefined` where none does. */
export function occurrenceAt(db: Connection, item: StoredItem, start: number): IndexedOccurrence | undefined {
  return occurrencesBetween(db, item, start, start + 1000)[0];
}

/**
 * The occurrence of a series that a recurrence text names (a date, or a wall-clock time of its zone), with the item that stands for it;
 * `null` where there is none.
 */
export function occurrenceOfText(
  db: Connection,
  series: StoredItem,
  recurrence: string,
): { readonly item: StoredItem; readonly start: number; readonly end: number } | null {
  const replacement = replacementsOf(db, series.id).find((r) => r.recurrence === recurrence);
  if (replacement) return { item: replacement, start: replacement.start, end: replacement.end };
  const wall = series.allDay ? parseDate(recurrence) : parseWall(recurrence);
  if (wall === null) return null;
  const occurrence = occurrenceAt(db, series, series.allDay ? wall : fromWallLenient(series.zone, wall));
  return occurrence ? { item: series, ...occurrence } : null;
}

/** Why a calendar has no room for what a repeat would put into its index; `null` where it has. */
export function noRoomFor(db: Connection, calendar: Calendar, series: Series): Refusal | null {
  if (series.rule === null && series.added.length === 0) return null;
  const { occurrences, cut } = expand(series, calendar.indexedFrom, calendar.indexedUntil, MOST_OCCURRENCES_OF_ITEM);
  const there = countOccurrences(db, calendar.id, MOST_OCCURRENCES_IN_CALENDAR);
  return cut || there + occurrences.length > MOST_OCCURRENCES_IN_CALENDAR
    ? refuse('calendarTooBusy', { facts: { most: MOST_OCCURRENCES_IN_CALENDAR } })
    : null;
}

/** Series moved on in one go before others get their turn. */
const A_SLICE = 50;

/**
 * Moves on every index that has come near its edge: adds what comes into its years and drops what falls out of them, a few series at
 * a time so that nobody waits. Run at the start and once an hour. Answers how many calendars were moved on.
 */
export async function moveHorizons(db: Connection, now: number, others: () => Promise<void>): Promise<number> {
  const due = calendarsIndexedBefore(db, now + AHEAD - MARGIN);
  for (const calendar of due) {
    const from = Math.max(calendar.indexedFrom, now - BACK);
    const until = now + AHEAD;
    const coming = (id: number) => {
      const item = itemById(db, id);
      if (item)
        addToIndex(db, calendar.id, id, item.allDay, occurrencesBetween(db, item, calendar.indexedUntil, until));
    };
    const ids = repeatingIds(db, calendar.id);
    await inSlices(db, ids, others, ([id]) => coming(id));
    // A series written meanwhile was indexed up to the old edge; it is extended in the transaction that moves the edge.
    const known = new Map(ids);
    db.write(() => {
      for (const [id, version] of repeatingIds(db, calendar.id)) if (known.get(id) !== version) coming(id);
      setIndexed(db, calendar.id, from, until);
    });
    await inSlices(db, ids, others, ([id]) => trimIndex(db, id, from));
  }
  return due.length;
}

async function inSlices<T>(
  db: Connection,
  list: readonly T[],
  others: () => Promise<void>,
  work: (one: T) => void,
): Promise<void> {
  for (let i = 0; i < list.length; i += A_SLICE) {
    db.write(() => list.slice(i, i + A_SLICE).forEach(work));
    await others();
  }
}
