import { now } from '../../clock.ts';
import type { Connection } from '../../db/index.ts';
import { changeNotesAfter, lastChangeNote } from '../../repositories/change-notes.ts';
import { grantsOnAt } from '../../repositories/grants.ts';
import { shareableById } from '../../repositories/shareables.ts';
import { announceAccess, collectionOf } from '../deciding/index.ts';

/**
 * Makes the ear for what other processes change in the same data: each call looks whether anybody wrote (a cheap question to
 * SQLite), and tells the open windows of those whose access differs from what it was just before.
 */
export function hearOthers(db: Connection): () => void {
  let heard = lastChangeNote(db);
  let version = -1;
  return () => {
    const written = Number(db.raw.pragma('data_version', { simple: true }));
    if (written === version) return;
    version = written;
    for (const note of changeNotesAfter(db, heard)) {
      heard = note.id;
      const shared = shareableById(db, note.collectionId);
      if (shared)
        announceAccess({ db, now: now() }, shared, collectionOf(shared, grantsOnAt(db, shared.id, note.at - 1)));
    }
  };
}
