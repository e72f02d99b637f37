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

/** Calls an item by a name from now on, and by no other, in whichever calendar it is; what was called so before isn't any more. */
export function nameForPrograms(
  db: Connection,
  personId: number,
  calendarId: number,
  name: string,
  itemId: number,
): void {
  db.run('DELETE FROM program_name WHERE person_id = ? AND item_id = ?', personId, itemId);
  db.run(
    `INSERT INTO program_name (person_id, collection_id, name, item_id) VALUES (?, ?, ?, ?)
       ON CONFLICT DO UPDATE SET item_id = excluded.item_id`,
    personId,
    calendarId,
    name,
    itemId,
  );
}

/** What somebody's programs call what they added to a list, by a table of such names. */
function namesInLists(table: 'program_task' | 'program_contact', column: 'task_id' | 'contact_id') {
  return {
    /** What is called by a name in a list (row numbers); `null` where nothing is. */
    byName: (db: Connection, personId: number, listId: number, name: string): number | null =>
      db.get<{ id: number }>(
        `SELECT ${column} AS id FROM ${table} WHERE person_id = ? AND list_id = ? AND name = ?`,
        personId,
        listId,
        name,
      )?.id ?? null,
    /** All names in a list, by row numbers. */
    names: (db: Connection, personId: number, listId: number): ReadonlyMap<number, string> => {
      const rows = db.all<{ id: number; name: string }>(
        `SELECT ${column} AS id, name FROM ${table} WHERE person_id = ? AND list_id = ?`,
        personId,
        listId,
      );
      return new Map(rows.map((r) => [r.id, r.name]));
    },
    /** Calls something by a name from now on; what was called so before isn't any more. */
    call: (db: Connection, personId: number, listId: number, name: string, id: number): void => {
      db.run(
        `INSERT INTO ${table} (person_id, list_id, name, ${column}) VALUES (?, ?, ?, ?)
           ON CONFLICT DO UPDATE SET ${column} = excluded.${column}`,
        personId,
        listId,
        name,
        id,
      );
    },
  };
}

/** What somebody's programs call the tasks, and the contacts, that they added to a list. */
export const programTasks = namesInLists('program_task', 'task_id');
export const programContacts = namesInLists('program_contact', 'contact_id');

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
