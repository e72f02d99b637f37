import { isDefined } from '@/core/time/index.ts';
import type { Connection } from '../db/index.ts';
import { decodeItem, type ItemRow } from './item-columns.ts';
import type { StoredItem } from './stored-item.ts';
import { knowZone } from './zone-definitions.ts';

/** What an item has beside its written fields that no file brought in. */
export const MADE_HERE = {
  wall: null,
  days: 0,
  kept: [],
  batch: null,
  endZone: null,
  holdSet: null,
  lapsesAt: null,
} as const;

/** An item that stands beside the calendar while the file it comes with is brought in. */
export const COMING = -1;

function decode(db: Connection, row: ItemRow): StoredItem {
  if (row.zone.startsWith('~') && !isDefined(row.zone)) knowZone(db, row.zone);
  return decodeItem(row);
}

export function itemByKey(db: Connection, key: string): StoredItem | null {
  const row = db.get<ItemRow>('SELECT * FROM item WHERE key = ?', key);
  return row ? decode(db, row) : null;
}

export function itemById(db: Connection, id: number): StoredItem | null {
  const row = db.get<ItemRow>('SELECT * FROM item WHERE id = ?', id);
  return row ? decode(db, row) : null;
}

/** Items of a calendar with a UID, removed ones left out. */
export function itemsByUid(db: Connection, calendarId: number, uid: string): StoredItem[] {
  return db
    .all<ItemRow>('SELECT * FROM item WHERE calendar_id = ? AND uid = ? AND removed_at IS NULL', calendarId, uid)
    .map((row) => decode(db, row));
}

/** Items of a calendar that were removed after an instant, the latest first: at most `most`. */
export function removedIn(db: Connection, calendarId: number, since: number, most: number): StoredItem[] {
  return db
    .all<ItemRow>(
      'SELECT * FROM item WHERE calendar_id = ? AND removed_at > ? ORDER BY removed_at DESC, id DESC LIMIT ?',
      calendarId,
      since,
      most,
    )
    .map((row) => decode(db, row));
}

/** The items that stand for single occurrences of a series. */
export function replacementsOf(db: Connection, seriesId: number): StoredItem[] {
  return db
    .all<ItemRow>('SELECT * FROM item WHERE series_id = ? AND removed_at IS NULL ORDER BY recurrence', seriesId)
    .map((row) => decode(db, row));
}

/** Invitations of a calendar that wait for an answer and aren't over at an instant, the soonest first: at most `most`. */
export function unansweredIn(db: Connection, calendarId: number, now: number, most: number): StoredItem[] {
  // By number first: sorting whole rows costs more than all the rest, where there are none.
  return db
    .arrays<[number]>(
      `SELECT id FROM item WHERE calendar_id = ? AND owner_answer = 'needs-action' AND owner_invited = 1
         AND removed_at IS NULL AND cancelled = 0 AND (finish > ? OR rule IS NOT NULL) ORDER BY start LIMIT ?`,
      calendarId,
      now,
      most,
    )
    .flatMap(([id]) => itemById(db, id) ?? []);
}

/** Every item of a calendar, series first. */
export function allItems(db: Connection, calendarId: number): StoredItem[] {
  return db
    .all<ItemRow>(
      'SELECT * FROM item WHERE calendar_id = ? AND removed_at IS NULL ORDER BY series_id IS NOT NULL, start, id',
      calendarId,
    )
    .map((row) => decode(db, row));
}

const REPEATS = `(rule IS NOT NULL OR added <> '[]') AND removed_at IS NULL`;

/** Row numbers of the items of a calendar that happen more than once, each with its version; at most `most`. */
export function repeatingIds(db: Connection, calendarId: number, most = 1_000_000): [id: number, version: number][] {
  return db.arrays(
    `SELECT id, version FROM item WHERE calendar_id = ? AND ${REPEATS} ORDER BY id LIMIT ?`,
    calendarId,
    most,
  );
}

/** How many items stand in a calendar, and how many a person has added since an instant. */
export function countItems(db: Connection, calendarId: number): number {
  return (
    db.get<{ n: number }>('SELECT count(*) AS n FROM item WHERE calendar_id = ? AND removed_at IS NULL', calendarId)
      ?.n ?? 0
  );
}
export function countAddedBy(db: Connection, personId: number, since: number): number {
  return (
    db.get<{ n: number }>('SELECT count(*) AS n FROM item WHERE created_by = ? AND created_at >= ?', personId, since)
      ?.n ?? 0
  );
}

/** The items that an act brought in, in the order they came. */
export function itemsOfBatch(db: Connection, batch: number): StoredItem[] {
  return db.all<ItemRow>('SELECT * FROM item WHERE batch = ? ORDER BY id', batch).map((row) => decode(db, row));
}

/** Sets the UID by which others know an item. No view contains it, so no window is told. */
export function renameItem(db: Connection, id: number, uid: string): void {
  db.run('UPDATE item SET uid = ? WHERE id = ?', uid, id);
}
