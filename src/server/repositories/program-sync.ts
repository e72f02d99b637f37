import { deflateSync, inflateSync } from 'node:zlib';
import type { Connection } from '../db/index.ts';

/** The names of a collection's things and their tags, as a program had them. */
export type SyncState = ReadonlyMap<string, string>;

/** States that are kept of one collection for one person: several programs, each at its own pace. */
const MOST_STATES = 6;

/** What somebody's program had of a collection by a token; `null` where that isn't kept any more, or never was. */
export function syncState(db: Connection, personId: number, collectionId: number, token: string): SyncState | null {
  const row = db.get<{ state: Uint8Array }>(
    'SELECT state FROM program_sync WHERE person_id = ? AND collection_id = ? AND token = ?',
    personId,
    collectionId,
    token,
  );
  return row ? new Map(JSON.parse(inflateSync(row.state).toString())) : null;
}

/** Keeps what somebody's program has of a collection by a token from now on; the oldest are let go. */
export function saveSyncState(
  db: Connection,
  personId: number,
  collectionId: number,
  token: string,
  state: SyncState,
): void {
  const packed = deflateSync(JSON.stringify([...state]), { level: 1 });
  const whose = [personId, collectionId] as const;
  db.run('DELETE FROM program_sync WHERE person_id = ? AND collection_id = ? AND token = ?', ...whose, token);
  db.run(
    'INSERT INTO program_sync (person_id, collection_id, token, state) VALUES (?, ?, ?, ?)',
    ...whose,
    token,
    packed,
  );
  db.run(
    `DELETE FROM program_sync WHERE person_id = ? AND collection_id = ? AND id NOT IN
       (SELECT id FROM program_sync WHERE person_id = ? AND collection_id = ? ORDER BY id DESC LIMIT ?)`,
    ...whose,
    ...whose,
    MOST_STATES,
  );
}
