import type { Connection } from '../db/index.ts';
import { insertCollection, type SharedCollection } from './collections.ts';

/** A calendar: a collection with a zone. Repeats stand in the index from `indexedFrom` to `indexedUntil` (epoch milliseconds). */
export interface Calendar extends SharedCollection {
  readonly kind: 'calendar';
  readonly zone: string;
  readonly indexedFrom: number;
  readonly indexedUntil: number;
  /** Whether its owner is told of their meeting messages themselves; those with copies are by that. */
  readonly ownerTold: boolean;
  /** What it is for. */
  readonly description: string;
  /** The group it was made for. */
  readonly groupId: number | null;
}

interface Row {
  id: number;
  key: string;
  owner_id: number;
  name: string;
  zone: string;
  main: 0 | 1;
  suspended: 0 | 1;
  indexed_from: number;
  indexed_until: number;
  owner_told: 0 | 1;
  description: string;
  group_id: number | null;
}

const SELECT = `SELECT c.id, c.key, c.owner_id, c.name, k.zone, c.main, k.indexed_from, k.indexed_until, k.owner_told, k.description, k.group_id,
  EXISTS (SELECT 1 FROM suspension s WHERE s.collection_id = c.id AND s.recorded_until IS NULL) AS suspended
  FROM collection c JOIN calendar k ON k.id = c.id AND k.removed_at IS NULL`;

const decode = (row: Row): Calendar => ({
  kind: 'calendar',
  id: row.id,
  key: row.key,
  ownerId: row.owner_id,
  name: row.name,
  zone: row.zone,
  main: row.main === 1,
  suspended: row.suspended === 1,
  indexedFrom: row.indexed_from,
  indexedUntil: row.indexed_until,
  ownerTold: row.owner_told === 1,
  description: row.description,
  groupId: row.group_id,
});

/** The calendars that were made for some groups. */
export const calendarsForGroups = (db: Connection, groups: readonly number[]): Calendar[] =>
  db
    .all<Row>(
      `${SELECT} WHERE k.group_id IN (SELECT value FROM json_each(?)) ORDER BY name LIMIT 200`,
      JSON.stringify(groups),
    )
    .map(decode);

/** Says for which group a calendar is. */
export function setCalendarGroup(db: Connection, id: number, groupId: number): void {
  db.run('UPDATE calendar SET group_id = ? WHERE id = ?', groupId, id);
}

export function calendarById(db: Connection, id: number): Calendar | null {
  const row = db.get<Row>(`${SELECT} WHERE c.id = ?`, id);
  return row ? decode(row) : null;
}

/** Some calendars by their row numbers, in no order. */
export const calendarsById = (db: Connection, ids: readonly number[]): Calendar[] =>
  db.all<Row>(`${SELECT} WHERE c.id IN (SELECT value FROM json_each(?))`, JSON.stringify(ids)).map(decode);

export function calendarByKey(db: Connection, key: string): Calendar | null {
  const row = db.get<Row>(`${SELECT} WHERE key = ?`, key);
  return row ? decode(row) : null;
}

/** The calendar that carries a person's name. */
export function mainCalendarOf(db: Connection, personId: number): Calendar | null {
  const row = db.get<Row>(`${SELECT} WHERE owner_id = ? AND main = 1`, personId);
  return row ? decode(row) : null;
}

export function allCalendars(db: Connection): Calendar[] {
  return db.all<Row>(SELECT).map(decode);
}

/** Every calendar that isn't somebody's main one, by name. */
export function furtherCalendars(db: Connection): Calendar[] {
  return db.all<Row>(`${SELECT} WHERE main = 0 ORDER BY name`).map(decode);
}

/** A person's calendars, the main one first. */
export function calendarsOf(db: Connection, personId: number): Calendar[] {
  return db.all<Row>(`${SELECT} WHERE owner_id = ? ORDER BY main DESC, name`, personId).map(decode);
}

/** Calendars whose index of endless repeats stops before an instant. */
export function calendarsIndexedBefore(db: Connection, instant: number): Calendar[] {
  return db.all<Row>(`${SELECT} WHERE indexed_until < ?`, instant).map(decode);
}

export function insertCalendar(
  db: Connection,
  c: Pick<Calendar, 'key' | 'ownerId' | 'name' | 'zone' | 'main' | 'indexedFrom' | 'indexedUntil'>,
): number {
  const id = insertCollection(db, { ...c, kind: 'calendar' });
  db.run(
    'INSERT INTO calendar (id, zone, indexed_from, indexed_until) VALUES (?, ?, ?, ?)',
    id,
    c.zone,
    c.indexedFrom,
    c.indexedUntil,
  );
  return id;
}

export function setIndexed(db: Connection, id: number, from: number, until: number): void {
  db.run('UPDATE calendar SET indexed_from = ?, indexed_until = ? WHERE id = ?', from, until, id);
}

/** Whether the owner of a calendar is told of their meeting messages. */
export function setOwnerTold(db: Connection, id: number, told: boolean): void {
  db.run('UPDATE calendar SET owner_told = ? WHERE id = ?', Number(told), id);
}

/** Names a calendar otherwise, says what it is for, and on which clock its days are. */
export function saveCalendar(db: Connection, id: number, name: string, description: string, zone: string): void {
  db.run('UPDATE collection SET name = ? WHERE id = ?', name, id);
  db.run('UPDATE calendar SET description = ?, zone = ? WHERE id = ?', description, zone, id);
}

/** Takes a calendar away at an instant, or (`null`) brings it back. Nothing here finds one that was taken away, but `removedCalendar`. */
export function setCalendarRemoved(db: Connection, id: number, at: number | null): void {
  db.run('UPDATE calendar SET removed_at = ? WHERE id = ?', at, id);
}

/** A calendar that was taken away, by its key. */
export function removedCalendar(
  db: Connection,
  key: string,
): { id: number; ownerId: number; removedAt: number } | null {
  const row = db.get<{ id: number; owner_id: number; removed_at: number }>(
    `SELECT c.id, c.owner_id, k.removed_at FROM collection c JOIN calendar k ON k.id = c.id
     WHERE c.key = ? AND k.removed_at IS NOT NULL`,
    key,
  );
  return row ? { id: row.id, ownerId: row.owner_id, removedAt: row.removed_at } : null;
}
