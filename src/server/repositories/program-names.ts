import type { Connection } from '../db/index.ts';

/** The item that somebody's programs call by a name in a calendar (row numbers); `null` where they call none so. */
export function itemByProgramName(db: Connection, personId: number, calendarId: number, name: string): number | null {
  const row = db.get<{ item_id: number }>(
    'SELECT item_id FROM program_name WHERE person_id = ? AND collection_id = ? AND name = ?',
    personId,
    calendarId,
    name,
  );
  return row?.item_id ?? null;
}

/** What somebody's programs call the items they added to a calendar, by the items' row numbers. */
export function programNames(db: Connection, personId: number, calendarId: number): ReadonlyMap<number, string> {
  const rows = db.all<{ item_id: number; name: string }>(
    'SELECT item_id, name FROM program_name WHERE person_id = ? AND collection_id = ?',
    personId,
    calendarId,
  );
  return new Map(rows.map((r) => [r.item_id, r.name]));
}

/** Calls an item by a name from now on; what was called so before isn't any more. */
export function nameForPrograms(
  db: Connection,
  personId: number,
  calendarId: number,
  name: string,
  itemId: number,
): void {
  db.run(
    `INSERT INTO program_name (person_id, collection_id, name, item_id) VALUES (?, ?, ?, ?)
       ON CONFLICT DO UPDATE SET item_id = excluded.item_id`,
    personId,
    calendarId,
    name,
    itemId,
  );
}

/** The versions at which somebody took invitations out of their inbox, by the items' row numbers. */
export function clearedFromInbox(db: Connection, personId: number): ReadonlyMap<number, number> {
  const rows = db.all<{ item_id: number; version: number }>(
    'SELECT item_id, version FROM inbox_cleared WHERE person_id = ?',
    personId,
  );
  return new Map(rows.map((r) => [r.item_id, r.version]));
}

export function clearFromInbox(db: Connection, personId: number, itemId: number, version: number): void {
  db.run(
    `INSERT INTO inbox_cleared (person_id, item_id, version) VALUES (?, ?, ?)
       ON CONFLICT DO UPDATE SET version = excluded.version`,
    personId,
    itemId,
    version,
  );
}
