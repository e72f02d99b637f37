import type { Connection } from '../db/index.ts';
import { encodeItem, itemColumns } from './item-columns.ts';
import type { StoredItem } from './stored-item.ts';

/*
 * How an item's row is written. Operations write through `writeItems`, which does all that belongs to it.
 */

const COLUMNS = Object.keys(itemColumns) as (keyof typeof itemColumns)[];
const INSERT = `INSERT INTO item (${COLUMNS.join(', ')}) VALUES (${COLUMNS.map(() => '?').join(', ')})`;
const UPDATE = `UPDATE item SET ${COLUMNS.map((c) => `${c} = ?`).join(', ')} WHERE id = ?`;

export function insertItem(db: Connection, item: Omit<StoredItem, 'id'>): StoredItem {
  const row = encodeItem(item);
  return { ...item, id: db.run(INSERT, ...COLUMNS.map((c) => row[c])) };
}

export function updateItem(db: Connection, item: StoredItem): void {
  const row = encodeItem(item);
  db.run(UPDATE, ...COLUMNS.map((c) => row[c]), item.id);
}
