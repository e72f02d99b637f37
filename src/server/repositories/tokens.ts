import type { Connection } from '../db/index.ts';

/** What a program of a person's comes in by. `reads`: it reads alone; `collectionId`: it sees that calendar and nothing else. */
export interface Token {
  readonly id: number;
  readonly key: string;
  readonly personId: number;
  readonly name: string;
  readonly digest: string;
  readonly reads: boolean;
  readonly collectionId: number | null;
  readonly ends: number | null;
  readonly madeAt: number;
  readonly lastUsed: number | null;
  readonly withdrawnAt: number | null;
}

interface Row {
  id: number;
  key: string;
  person_id: number;
  name: string;
  digest: string;
  reads: 0 | 1;
  collection_id: number | null;
  ends: number | null;
  made_at: number;
  last_used: number | null;
  withdrawn_at: number | null;
}

const decode = (r: Row): Token => ({
  id: r.id,
  key: r.key,
  personId: r.person_id,
  name: r.name,
  digest: r.digest,
  reads: r.reads === 1,
  collectionId: r.collection_id,
  ends: r.ends,
  madeAt: r.made_at,
  lastUsed: r.last_used,
  withdrawnAt: r.withdrawn_at,
});

export function tokenByKey(db: Connection, key: string): Token | null {
  const row = db.get<Row>('SELECT * FROM token WHERE key = ?', key);
  return row ? decode(row) : null;
}

/** A person's tokens that stand, and those withdrawn since an instant; the newest first. */
export function tokensOf(db: Connection, personId: number, withdrawnSince: number): Token[] {
  return db
    .all<Row>(
      'SELECT * FROM token WHERE person_id = ? AND (withdrawn_at IS NULL OR withdrawn_at >= ?) ORDER BY id DESC LIMIT 200',
      personId,
      withdrawnSince,
    )
    .map(decode);
}

export function insertToken(db: Connection, t: Omit<Token, 'id' | 'lastUsed' | 'withdrawnAt'>): void {
  db.run(
    `INSERT INTO token (key, person_id, name, digest, reads, collection_id, ends, made_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
    t.key,
    t.personId,
    t.name,
    t.digest,
    Number(t.reads),
    t.collectionId,
    t.ends,
    t.madeAt,
  );
}

/** Whether a token stands at an instant: one look, so that it can be asked within a transaction. */
export function tokenStands(db: Connection, key: string, at: number): boolean {
  return (
    db.get('SELECT 1 FROM token WHERE key = ? AND withdrawn_at IS NULL AND (ends IS NULL OR ends > ?)', key, at) !==
    undefined
  );
}

export function withdrawTokenRow(db: Connection, key: string, at: number): void {
  db.run('UPDATE token SET withdrawn_at = ? WHERE key = ? AND withdrawn_at IS NULL', at, key);
}

/** Withdraws every token of somebody. */
export function withdrawTokensOf(db: Connection, personId: number, at: number): void {
  db.run('UPDATE token SET withdrawn_at = ? WHERE person_id = ? AND withdrawn_at IS NULL', at, personId);
}

export function noteTokenUse(db: Connection, key: string, at: number): void {
  db.run('UPDATE token SET last_used = ? WHERE key = ?', at, key);
}

/** Something a token wrote: by the name of the route, and in which collection where it was in one. */
export interface TokenAct {
  readonly at: number;
  readonly act: string;
  readonly collectionId: number | null;
}

export function insertTokenAct(db: Connection, tokenKey: string, { at, act, collectionId }: TokenAct): void {
  db.run(
    'INSERT INTO token_act (token_id, at, act, collection_id) SELECT id, ?, ?, ? FROM token WHERE key = ?',
    at,
    act,
    collectionId,
    tokenKey,
  );
}

/** What a token wrote, the latest first: at most `most`. */
export const tokenActs = (db: Connection, tokenId: number, most: number): TokenAct[] =>
  db
    .all<{ at: number; act: string; collection_id: number | null }>(
      'SELECT at, act, collection_id FROM token_act WHERE token_id = ? ORDER BY id DESC LIMIT ?',
      tokenId,
      most,
    )
    .map(({ at, act, collection_id: collectionId }) => ({ at, act, collectionId }));
