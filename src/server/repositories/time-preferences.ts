import type { TimePreference } from '@/core/openings/index.ts';
import type { Connection } from '../db/index.ts';

/** What a person wishes of their days, and how often that was said. */
export interface TimePreferenceList {
  readonly keeps: readonly TimePreference[];
  readonly version: number;
}

export function timePreferencesOf(db: Connection, personId: number): TimePreferenceList {
  const row = db.get<{ keeps: string; version: number }>(
    'SELECT keeps, version FROM keep_list WHERE person_id = ?',
    personId,
  );
  return row ? { keeps: JSON.parse(row.keeps), version: row.version } : { keeps: [], version: 0 };
}

export function putTimePreferences(
  db: Connection,
  personId: number,
  list: TimePreferenceList,
  by: number,
  at: number,
): void {
  db.run(
    `INSERT INTO keep_list (person_id, keeps, version, changed_by, changed_at) VALUES (?, ?, ?, ?, ?)
     ON CONFLICT (person_id) DO UPDATE SET keeps = excluded.keeps, version = excluded.version,
       changed_by = excluded.changed_by, changed_at = excluded.changed_at`,
    personId,
    JSON.stringify(list.keeps),
    list.version,
    by,
    at,
  );
}
