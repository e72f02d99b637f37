import type { Connection } from '../db/index.ts';

/** What somebody outside is called on a calendar; `null` where nobody there has named them. */
export function outsiderName(db: Connection, collectionId: number, personId: number): string | null {
  return (
    db.get<{ name: string }>(
      'SELECT name FROM outsider_name WHERE collection_id = ? AND person_id = ?',
      collectionId,
      personId,
    )?.name ?? null
  );
}

/** Gives somebody outside their name on a calendar; one they have there stays. */
export function nameOutsider(db: Connection, collectionId: number, personId: number, name: string): void {
  db.run(
    'INSERT INTO outsider_name (collection_id, person_id, name) VALUES (?, ?, ?) ON CONFLICT DO NOTHING',
    collectionId,
    personId,
    name,
  );
}
