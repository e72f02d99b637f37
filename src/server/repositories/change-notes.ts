import type { Connection } from '../db/index.ts';

/** That the access to a calendar was changed by another process, and when. */
export interface ChangeNote {
  readonly id: number;
  readonly collectionId: number;
  readonly at: number;
}

export function insertChangeNote(db: Connection, collectionId: number, at: number): void {
  db.run('INSERT INTO change_note (collection_id, at) VALUES (?, ?)', collectionId, at);
}

export function changeNotesAfter(db: Connection, id: number): ChangeNote[] {
  return db
    .arrays<[number, number, number]>('SELECT id, collection_id, at FROM change_note WHERE id > ? ORDER BY id', id)
    .map(([noteId, collectionId, at]) => ({ id: noteId, collectionId, at }));
}

export function lastChangeNote(db: Connection): number {
  return db.get<{ id: number }>('SELECT coalesce(max(id), 0) AS id FROM change_note')?.id ?? 0;
}
