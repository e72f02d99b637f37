import type { Connection } from '../db/index.ts';

/** When somebody is away (`starts` to `ends`, epoch milliseconds, the end not included), and what their mail is answered with meanwhile. */
export interface StoredAbsence {
  readonly id: number;
  readonly key: string;
  readonly personId: number;
  readonly starts: number;
  readonly ends: number;
  /** What whoever writes from inside is answered; empty: nothing. */
  readonly inside: string;
  readonly outside: string;
  readonly coverId: number | null;
  /** Whether new invitations within it are declined. */
  readonly declines: boolean;
  /** What shows it in their calendar. */
  readonly itemId: number | null;
  readonly setBy: number;
  readonly setAt: number;
  readonly version: number;
}

type Row = Omit<StoredAbsence, 'declines'> & { declines: 0 | 1 };

const COLUMNS = `id, key, person_id AS personId, starts, ends, inside, outside, cover_id AS coverId, declines, item_id AS itemId,
  set_by AS setBy, set_at AS setAt, version`;
const decode = (row: Row): StoredAbsence => ({ ...row, declines: row.declines === 1 });

/** Somebody's absences that end after an instant, the first first. */
export const absencesOf = (db: Connection, personId: number, after: number): StoredAbsence[] =>
  db
    .all<Row>(
      `SELECT ${COLUMNS} FROM absence WHERE person_id = ? AND ends > ? AND removed_at IS NULL ORDER BY starts, id`,
      personId,
      after,
    )
    .map(decode);

/** The absence somebody is in at an instant; `null` where they are there. */
export const absenceAt = (db: Connection, personId: number, at: number): StoredAbsence | null =>
  absencesOf(db, personId, at).find(({ starts }) => starts <= at) ?? null;

export function absenceByKey(db: Connection, key: string): StoredAbsence | null {
  const row = db.get<Row>(`SELECT ${COLUMNS} FROM absence WHERE key = ? AND removed_at IS NULL`, key);
  return row ? decode(row) : null;
}

/** Writes an absence: a new one, or one as it is to be from now on. */
export function saveAbsence(db: Connection, a: Omit<StoredAbsence, 'id'>): void {
  db.run(
    `INSERT INTO absence (key, person_id, starts, ends, inside, outside, cover_id, declines, item_id, set_by, set_at, version)
     VALUES (@key, @personId, @starts, @ends, @inside, @outside, @coverId, @declines, @itemId, @setBy, @setAt, @version)
     ON CONFLICT (key) DO UPDATE SET starts = excluded.starts, ends = excluded.ends, inside = excluded.inside, outside = excluded.outside,
       cover_id = excluded.cover_id, declines = excluded.declines, item_id = excluded.item_id, set_by = excluded.set_by,
       set_at = excluded.set_at, version = excluded.version`,
    { ...a, declines: Number(a.declines) },
  );
}

export function removeAbsence(db: Connection, id: number, at: number): void {
  db.run('UPDATE absence SET removed_at = ? WHERE id = ?', at, id);
}

/** Notes that an address is answered during an absence; `false` where it was answered before, or as many were as may be (`most`). */
export const noteReply = (db: Connection, absenceId: number, address: string, at: number, most: number): boolean =>
  db.changes(
    `INSERT INTO absence_reply (absence_id, address, at) SELECT ?, ?, ?
     WHERE (SELECT count(*) FROM absence_reply WHERE absence_id = ?) < ? ON CONFLICT DO NOTHING`,
    absenceId,
    address.toLowerCase(),
    at,
    absenceId,
    most,
  ) === 1;

/** Whether an item shows an absence: it comes and goes with that. */
export const showsAbsence = (db: Connection, itemId: number): boolean =>
  db.get('SELECT 1 FROM absence WHERE item_id = ? AND removed_at IS NULL', itemId) !== undefined;

/** How many addresses were answered during an absence. */
export const countReplies = (db: Connection, absenceId: number): number =>
  db.get<{ n: number }>('SELECT count(*) AS n FROM absence_reply WHERE absence_id = ?', absenceId)?.n ?? 0;
