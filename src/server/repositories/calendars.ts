import type { Connection } from '../db/index.ts';

/** A calendar. Repeats stand in the index from `indexedFrom` to `indexedUntil` (epoch milliseconds). */
export interface Calendar {
  readonly id: number;
  readonly key: string;
  readonly ownerId: number;
  readonly name: string;
  readonly zone: string;
  readonly main: boolean;
  readonly suspended: boolean;
  readonly indexedFrom: number;
  readonly indexedUntil: number;
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
}

const SELECT = `SELECT id, key, owner_id, name, zone, main, indexed_from, indexed_until,
  EXISTS (SELECT 1 FROM suspension s WHERE s.calendar_id = calendar.id AND s.recorded_until IS NULL) AS suspended
  FROM calendar`;

const decode = (row: Row): Calendar => ({
  id: row.id,
  key: row.key,
  ownerId: row.owner_id,
  name: row.name,
  zone: row.zone,
  main: row.main === 1,
  suspended: row.suspended === 1,
  indexedFrom: row.indexed_from,
  indexedUntil: row.indexed_until,
});

export function calendarById(db: Connection, id: number): Calendar | null {
  const row = db.get<Row>(`${SELECT} WHERE id = ?`, id);
  return row ? decode(row) : null;
}

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

/** Hands a calendar on: it becomes a further one of its new owner's. */
export function handOn(db: Connection, id: number, ownerId: number, name: string): void {
  db.run('UPDATE calendar SET owner_id = ?, name = ?, main = 0 WHERE id = ?', ownerId, name, id);
}

/** Calendars whose index of endless repeats stops before an instant. */
export function calendarsIndexedBefore(db: Connection, instant: number): Calendar[] {
  return db.all<Row>(`${SELECT} WHERE indexed_until < ?`, instant).map(decode);
}

export function insertCalendar(
  db: Connection,
  c: Pick<Calendar, 'key' | 'ownerId' | 'name' | 'zone' | 'main' | 'indexedFrom' | 'indexedUntil'>,
): number {
  return db.run(
    'INSERT INTO calendar (key, owner_id, name, zone, main, indexed_from, indexed_until) VALUES (?, ?, ?, ?, ?, ?, ?)',
    c.key,
    c.ownerId,
    c.name,
    c.zone,
    Number(c.main),
    c.indexedFrom,
    c.indexedUntil,
  );
}

/** Ends or begins a suspension of all sharing of a calendar; both stay as dated facts. */
export function setSuspended(db: Connection, id: number, suspended: boolean, at: number, by: number): void {
  if (suspended)
    db.run('INSERT INTO suspension (calendar_id, recorded_from, recorded_by) VALUES (?, ?, ?)', id, at, by);
  else db.run('UPDATE suspension SET recorded_until = ? WHERE calendar_id = ? AND recorded_until IS NULL', at, id);
}

/** Whether sharing was suspended at an instant. */
export function wasSuspended(db: Connection, id: number, at: number): boolean {
  return (
    db.get(
      `SELECT 1 FROM suspension WHERE calendar_id = ? AND recorded_from <= ? AND (recorded_until IS NULL OR recorded_until > ?)`,
      id,
      at,
      at,
    ) !== undefined
  );
}

export function setIndexed(db: Connection, id: number, from: number, until: number): void {
  db.run('UPDATE calendar SET indexed_from = ?, indexed_until = ? WHERE id = ?', from, until, id);
}
