import type { Connection } from '../db/index.ts';

/** How much was found on a calendar, when its owner was last told, and whether they read that. */
export interface FindingCount {
  readonly calendarId: number;
  readonly found: number;
  readonly toldAt: number;
  readonly readAt: number | null;
}

/** Calendars of people who sign in that weren't looked at since an instant, the longest ago first: at most `most`. */
export function calendarsToLookAt(
  db: Connection,
  before: number,
  most: number,
): { readonly key: string; readonly ownerId: number }[] {
  return db.all<{ key: string; ownerId: number }>(
    `SELECT c.key, c.owner_id AS ownerId FROM collection c JOIN calendar k ON k.id = c.id AND k.removed_at IS NULL
       JOIN person p ON p.id = c.owner_id AND p.account IS NOT NULL LEFT JOIN finding_count f ON f.collection_id = c.id
     WHERE c.kind = 'calendar' AND (f.at IS NULL OR f.at < ?) ORDER BY f.at, c.id LIMIT ?`,
    before,
    most,
  );
}

/** What was found on the calendars of an owner, those with nothing left out. */
export function findingCountsOf(db: Connection, ownerId: number): FindingCount[] {
  return db.all<FindingCount>(
    `SELECT f.collection_id AS calendarId, f.found, f.told_at AS toldAt, f.read_at AS readAt FROM finding_count f
       JOIN collection c ON c.id = f.collection_id JOIN calendar k ON k.id = c.id AND k.removed_at IS NULL
     WHERE c.owner_id = ? AND f.found > 0 ORDER BY c.main DESC, c.id`,
    ownerId,
  );
}

/**
 * Keeps what was found now. Where it is the first time its owner counts as told: they see it where they give access. Told anew they are `again`
 * long after, where anything is found; answers whether they are by this.
 */
export function saveFindingCount(
  db: Connection,
  calendarId: number,
  found: number,
  at: number,
  again: number,
): boolean {
  const before = db.get<{ told_at: number }>('SELECT told_at FROM finding_count WHERE collection_id = ?', calendarId);
  if (!before) {
    db.run(
      'INSERT INTO finding_count (collection_id, found, at, told_at, read_at) VALUES (?, ?, ?, ?, ?)',
      calendarId,
      found,
      at,
      at,
      at,
    );
    return false;
  }
  const tells = found > 0 && at - before.told_at >= again;
  db.run('UPDATE finding_count SET found = ?, at = ? WHERE collection_id = ?', found, at, calendarId);
  if (tells) db.run('UPDATE finding_count SET told_at = ?, read_at = NULL WHERE collection_id = ?', at, calendarId);
  return tells;
}

/** Marks what an owner was told of their calendars as read. */
export function markFindingsRead(db: Connection, ownerId: number, at: number): void {
  db.run(
    'UPDATE finding_count SET read_at = ? WHERE read_at IS NULL AND collection_id IN (SELECT id FROM collection WHERE owner_id = ?)',
    at,
    ownerId,
  );
}
