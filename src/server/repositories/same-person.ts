import type { Connection } from '../db/index.ts';

/** The accounts that are tied to somebody's, by row number, and since when. */
export function tiedTo(db: Connection, personId: number): { readonly id: number; readonly at: number }[] {
  return db.all<{ id: number; at: number }>(
    `SELECT b_id AS id, at FROM same_person WHERE a_id = @personId
       UNION ALL SELECT a_id, at FROM same_person WHERE b_id = @personId ORDER BY at, id`,
    { personId },
  );
}

export const isTied = (db: Connection, one: number, other: number): boolean =>
  db.get('SELECT 1 FROM same_person WHERE a_id = ? AND b_id = ?', Math.min(one, other), Math.max(one, other)) !==
  undefined;

export function tie(db: Connection, one: number, other: number, at: number): void {
  db.run(
    'INSERT INTO same_person (a_id, b_id, at) VALUES (?, ?, ?) ON CONFLICT DO NOTHING',
    Math.min(one, other),
    Math.max(one, other),
    at,
  );
}

export function untie(db: Connection, one: number, other: number): void {
  db.run('DELETE FROM same_person WHERE a_id = ? AND b_id = ?', Math.min(one, other), Math.max(one, other));
}

/** Unties somebody from everybody, and forgets the code they made. */
export function untieAll(db: Connection, personId: number): void {
  db.run('DELETE FROM same_person WHERE a_id = @personId OR b_id = @personId', { personId });
  db.run('DELETE FROM account_code WHERE person_id = ?', personId);
}

/** Keeps the digest of the one code somebody has, in place of the one before. */
export function saveCode(db: Connection, personId: number, digest: string, ends: number): void {
  db.run(
    `INSERT INTO account_code (person_id, digest, ends) VALUES (?, ?, ?)
       ON CONFLICT DO UPDATE SET digest = excluded.digest, ends = excluded.ends`,
    personId,
    digest,
    ends,
  );
}

/** Whose code it is, taken away with the answer: it is good for once. `null` for one that is none, or at its end. */
export function spendCode(db: Connection, digest: string, at: number): number | null {
  const row = db.get<{ person_id: number }>(
    'SELECT person_id FROM account_code WHERE digest = ? AND ends > ?',
    digest,
    at,
  );
  if (!row) return null;
  db.run('DELETE FROM account_code WHERE person_id = ?', row.person_id);
  return row.person_id;
}
