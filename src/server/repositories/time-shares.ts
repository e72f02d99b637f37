import type { TimeShare } from '@/core/reports/index.ts';
import type { Connection } from '../db/index.ts';

/** What shares of somebody's time are wished for; version 0 where nothing was ever said. */
export function timeSharesOf(
  db: Connection,
  personId: number,
): { readonly shares: TimeShare[]; readonly version: number } {
  const row = db.get<{ shares: string; version: number }>(
    'SELECT shares, version FROM time_share WHERE person_id = ?',
    personId,
  );
  return row ? { shares: JSON.parse(row.shares) as TimeShare[], version: row.version } : { shares: [], version: 0 };
}

export function putTimeShares(
  db: Connection,
  personId: number,
  shares: readonly TimeShare[],
  version: number,
  by: number,
  at: number,
): void {
  db.run(
    `INSERT INTO time_share (person_id, shares, version, changed_by, changed_at) VALUES (?, ?, ?, ?, ?)
     ON CONFLICT (person_id) DO UPDATE SET shares = excluded.shares, version = excluded.version, changed_by = excluded.changed_by,
       changed_at = excluded.changed_at`,
    personId,
    JSON.stringify(shares),
    version,
    by,
    at,
  );
}
