import type { Connection } from '../db/index.ts';
import { COMING } from './items.ts';
import type { StoredItem } from './stored-item.ts';

/** An act of bringing in a file. `before`: the items it put a newer revision in place of, or joined to a series, as they were. */
export interface Batch {
  readonly id: number;
  readonly key: string;
  readonly calendarId: number;
  readonly state: 'coming' | 'in' | 'undone';
  readonly before: readonly StoredItem[];
}

export function insertBatch(
  db: Connection,
  batch: { key: string; calendarId: number; personId: number; at: number },
): Batch {
  const id = db.run(
    `INSERT INTO batch (key, calendar_id, person_id, at, state) VALUES (?, ?, ?, ?, 'coming')`,
    batch.key,
    batch.calendarId,
    batch.personId,
    batch.at,
  );
  return { id, key: batch.key, calendarId: batch.calendarId, state: 'coming', before: [] };
}

export function batchByKey(db: Connection, key: string): Batch | null {
  const row = db.get<{ id: number; key: string; calendar_id: number; state: Batch['state']; before: string }>(
    'SELECT * FROM batch WHERE key = ?',
    key,
  );
  return row
    ? { id: row.id, key: row.key, calendarId: row.calendar_id, state: row.state, before: JSON.parse(row.before) }
    : null;
}

export function saveBatch(db: Connection, id: number, state: Batch['state'], before: readonly StoredItem[]): void {
  db.run('UPDATE batch SET state = ?, before = ? WHERE id = ?', state, JSON.stringify(before), id);
}

/** Batches that were coming in when their process ended. */
export function unfinishedBatches(db: Connection): number[] {
  return db.arrays<[number]>(`SELECT id FROM batch WHERE state = 'coming'`).map(([id]) => id);
}

/** Drops those of a coming batch's items for which another came to stand meanwhile, with what happens of them. */
export function dropItemsOf(db: Connection, batch: number): void {
  const there = `SELECT i.id FROM item i WHERE i.batch = ? AND EXISTS (SELECT 1 FROM item o WHERE o.calendar_id = i.calendar_id
    AND o.uid = i.uid AND coalesce(o.recurrence, '') = coalesce(i.recurrence, '') AND o.removed_at IS NULL)`;
  db.run(`DELETE FROM coming WHERE batch = ? AND item_id IN (${there})`, batch, batch);
  db.run(`UPDATE item SET series_id = NULL WHERE batch = ? AND series_id IN (${there})`, batch, batch);
  db.run(`DELETE FROM item WHERE batch = ? AND id IN (${there})`, batch, batch);
}

/** Lets a batch's items be seen. */
export function letItemsIn(db: Connection, batch: number): void {
  db.run('UPDATE item SET removed_at = NULL WHERE batch = ?', batch);
}

/** Whether all of a batch's items are still as they came. */
export function bornIn(db: Connection, batch: number): boolean {
  return (
    db.get('SELECT 1 FROM item WHERE batch = ? AND (version <> 1 OR removed_at IS NOT NULL) LIMIT 1', batch) ===
    undefined
  );
}

export function takeItemsOut(db: Connection, batch: number, at: number): void {
  db.run('UPDATE item SET removed_at = ?, version = version + 1 WHERE batch = ?', at, batch);
}

/** Removes some of a batch that never came in, and at last the batch; answers whether there is more. */
export function forget(db: Connection, batch: number, most: number): boolean {
  db.run(
    'UPDATE item SET series_id = NULL WHERE batch = ? AND removed_at = ? AND series_id IS NOT NULL',
    batch,
    COMING,
  );
  const gone = db.changes(
    'DELETE FROM item WHERE id IN (SELECT id FROM item WHERE batch = ? AND removed_at = ? LIMIT ?)',
    batch,
    COMING,
    most,
  );
  if (gone < most) db.run(`DELETE FROM batch WHERE id = ? AND state = 'coming'`, batch);
  return gone === most;
}
