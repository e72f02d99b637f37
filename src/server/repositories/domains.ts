import type { Connection } from '../db/index.ts';

/** The domains whose addresses belong to the organisation, in order. */
export function domains(db: Connection): string[] {
  return db.arrays<[string]>('SELECT name FROM domain ORDER BY name').map(([name]) => name);
}

export function insertDomain(db: Connection, name: string): void {
  db.run('INSERT OR IGNORE INTO domain (name) VALUES (?)', name);
}

export function deleteDomain(db: Connection, name: string): void {
  db.run('DELETE FROM domain WHERE name = ?', name);
}
