import type { Connection } from '../db/index.ts';

/** Remembers what came in from outside. Answers whether it is new: the same once more is no other. `raw` is kept of what nobody here was meant by. */
export function rememberInbound(db: Connection, fingerprint: string, at: number, raw: Uint8Array | null): boolean {
  return (
    db.changes(
      'INSERT INTO inbound (fingerprint, at, for_nobody, raw) VALUES (?, ?, ?, ?) ON CONFLICT (fingerprint) DO NOTHING',
      fingerprint,
      at,
      Number(raw !== null),
      raw === null ? null : Buffer.from(raw),
    ) === 1
  );
}

/** How many messages came for nobody who is here. */
export const countForNobody = (db: Connection): number =>
  db.get<{ n: number }>('SELECT count(*) AS n FROM inbound WHERE for_nobody = 1')?.n ?? 0;
