import type { Connection } from '../db/index.ts';

/** Who said last, in a session since an instant, that they are behind a role account; `null` where nobody did. */
export function operatorOfSession(db: Connection, personId: number, session: string, since: number): string | null {
  const row = db.get<{ name: string }>(
    'SELECT name FROM hands WHERE person_id = ? AND session = ? AND at >= ? ORDER BY id DESC LIMIT 1',
    personId,
    session,
    since,
  );
  return row?.name ?? null;
}

/** Who said so of late, whoever said it last first: at most `most` names. */
export function recentOperators(db: Connection, personId: number, since: number, most: number): string[] {
  return db
    .all<{ name: string }>(
      'SELECT name FROM hands WHERE person_id = ? AND at >= ? GROUP BY name ORDER BY max(id) DESC LIMIT ?',
      personId,
      since,
      most,
    )
    .map((row) => row.name);
}

export function insertOperator(db: Connection, personId: number, session: string, name: string, at: number): void {
  db.run('INSERT INTO hands (person_id, session, name, at) VALUES (?, ?, ?, ?)', personId, session, name, at);
}
