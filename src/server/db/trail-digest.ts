import { createHash, randomBytes } from 'node:crypto';
import type Database from 'better-sqlite3';

/** What of an entry of the trail its digest holds beside what it says: row numbers, and when in epoch milliseconds. */
export interface ChainedFacts {
  readonly key: string;
  readonly at: number;
  readonly actorId: number;
  readonly principalId: number;
  readonly collectionId: number | null;
  readonly subject: string;
  readonly verb: string;
}

/** What an entry says, as it is stored: the texts before and after, and who was behind a role account. */
export interface ChainedText {
  readonly before: string | null;
  readonly after: string | null;
  readonly hands: string | null;
}

const sha256 = (parts: readonly unknown[]): string => createHash('sha256').update(JSON.stringify(parts)).digest('hex');

/** A salt for one entry, so that what was forgotten can't be guessed from its digest. */
export const newSalt = (): string => randomBytes(16).toString('hex');

/** The digest under which an entry's text stands (SHA-256, hex). */
export const textDigest = (salt: string, { before, after, hands }: ChainedText): string =>
  sha256([salt, before, after, hands]);

/** The digest of an entry: of the one before (empty for the first), of what it is, and of its text's digest (SHA-256, hex). */
export const entryDigest = (previous: string, e: ChainedFacts, text: string): string =>
  sha256([previous, e.key, e.at, e.actorId, e.principalId, e.collectionId, e.subject, e.verb, text]);

/** The columns of an entry that its digests are made of, by the names they have here. */
export const CHAINED = `key, at, actor_id AS actorId, principal_id AS principalId, collection_id AS collectionId, subject, verb, before, after, hands`;

/** Chains the entries that were there before there was a chain. */
export function chainTrail(raw: Database.Database): void {
  const put = raw.prepare('UPDATE trail SET salt = ?, text_digest = ?, digest = ? WHERE id = ?');
  const ids = raw.prepare('SELECT id FROM trail ORDER BY id').pluck().all() as number[];
  const read = raw.prepare(`SELECT ${CHAINED} FROM trail WHERE id = ?`);
  let previous = '';
  for (const id of ids) {
    const entry = read.get(id) as ChainedFacts & ChainedText;
    const salt = newSalt();
    const text = textDigest(salt, entry);
    previous = entryDigest(previous, entry, text);
    put.run(salt, text, previous, id);
  }
  raw.prepare('UPDATE trail_head SET entries = ?, digest = ?').run(ids.length, previous);
}
