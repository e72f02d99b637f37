import type { CollectionKind } from '@/core/collection/index.ts';
import type { Connection } from '../db/index.ts';

/** What is shared, of whatever kind; `main` is whether it is the calendar that carries its owner's name. */
export interface SharedCollection {
  readonly id: number;
  readonly key: string;
  readonly kind: CollectionKind;
  readonly ownerId: number;
  readonly name: string;
  readonly main: boolean;
  readonly suspended: boolean;
}

/** Of which kind a collection is, also one that was taken away. */
export const kindOfCollection = (db: Connection, id: number): CollectionKind =>
  db.get<{ kind: CollectionKind }>('SELECT kind FROM collection WHERE id = ?', id)?.kind ?? 'calendar';

/** Whether anything has a key, taken away or not. */
export const isCollectionKey = (db: Connection, key: string): boolean =>
  db.get('SELECT 1 FROM collection WHERE key = ?', key) !== undefined;

export function insertCollection(
  db: Connection,
  c: Pick<SharedCollection, 'key' | 'kind' | 'ownerId' | 'name' | 'main'>,
): number {
  return db.run(
    'INSERT INTO collection (key, kind, owner_id, name, main) VALUES (?, ?, ?, ?, ?)',
    c.key,
    c.kind,
    c.ownerId,
    c.name,
    Number(c.main),
  );
}

/** Hands a collection on: it becomes a further one of its new owner's. */
export function reassignCollection(db: Connection, id: number, ownerId: number, name: string): void {
  db.run('UPDATE collection SET owner_id = ?, name = ?, main = 0 WHERE id = ?', ownerId, name, id);
}

/** Ends or begins a suspension of all sharing of a collection; both stay as dated facts. */
export function setSuspended(db: Connection, id: number, suspended: boolean, at: number, by: number): void {
  if (suspended)
    db.run('INSERT INTO suspension (collection_id, recorded_from, recorded_by) VALUES (?, ?, ?)', id, at, by);
  else db.run('UPDATE suspension SET recorded_until = ? WHERE collection_id = ? AND recorded_until IS NULL', at, id);
}

/** Whether sharing was suspended at an instant. */
export function wasSuspended(db: Connection, id: number, at: number): boolean {
  return (
    db.get(
      `SELECT 1 FROM suspension WHERE collection_id = ? AND recorded_from <= ? AND (recorded_until IS NULL OR recorded_until > ?)`,
      id,
      at,
      at,
    ) !== undefined
  );
}
