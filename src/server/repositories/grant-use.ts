import type { Connection } from '../db/index.ts';

/** Notes that a person's reading was decided by some grants. */
export function recordUse(db: Connection, grantKeys: readonly string[], personId: number, at: number): void {
  for (const key of grantKeys)
    db.run(
      `INSERT INTO grant_use (grant_id, person_id, last_used) SELECT id, ?, ? FROM access_grant WHERE key = ?
       ON CONFLICT (grant_id, person_id) DO UPDATE SET last_used = excluded.last_used`,
      personId,
      at,
      key,
    );
}

/** When each grant of a calendar was last used by anybody, by its row number. */
export function lastUses(db: Connection, collectionId: number): Map<number, number> {
  return new Map(
    db.arrays<[number, number]>(
      `SELECT u.grant_id, max(u.last_used) FROM grant_use u JOIN access_grant g ON g.id = u.grant_id
       WHERE g.collection_id = ? GROUP BY u.grant_id`,
      collectionId,
    ),
  );
}
