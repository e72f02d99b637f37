import type { Connection } from '../db/index.ts';

/** That the access to a calendar was changed by another process, and when. */
export interface ChangeNote {
  readonly id: number;
  readonly calendarId: number;
  readonly at: number;
}

export function insertChangeNote(db: Connection, calendarId: number, at: number): void {
  db.run('INSERT INTO change_note (calendar_id, at) VALUES (?, ?)', calendarId, at);
}

export function changeNotesAfter(db: Connection, id: number): ChangeNote[] {
  return db
    .arrays<[number, number, number]>('SELECT id, calendar_id, at FROM change_note WHERE id > ? ORDER BY id', id)
    .map(([noteId, calendarId, at]) => ({ id: noteId, calendarId, at }));
}

export function lastChangeNote(db: Connection): number {
  return db.get<{ id: number }>('SELECT coalesce(max(id), 0) AS id FROM change_note')?.id ?? 0;
}
