import type { Connection } from '../db/index.ts';
import type { StoredItem } from './stored-item.ts';

/** One entry of the trail: who did what in whose name, with the state before and after as JSON text. */
export interface TrailEntry {
  readonly key: string;
  readonly at: number;
  readonly actorId: number;
  readonly principalId: number;
  readonly collectionId: number | null;
  readonly subject: string;
  readonly verb: string;
  readonly before: unknown;
  readonly after: unknown;
  /** Who was behind a role account, as they said. */
  readonly hands: string | null;
}

export function recordTrail(db: Connection, entry: TrailEntry): void {
  db.run(
    `INSERT INTO trail (key, at, actor_id, principal_id, collection_id, subject, verb, before, after, hands)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    entry.key,
    entry.at,
    entry.actorId,
    entry.principalId,
    entry.collectionId,
    entry.subject,
    entry.verb,
    entry.before === null ? null : JSON.stringify(entry.before),
    entry.after === null ? null : JSON.stringify(entry.after),
    entry.hands,
  );
}

/** The items of an entry that was left for a write on items, as they were (`null`: not there yet) and as they were written. */
export interface ItemStates {
  readonly before: readonly (StoredItem | null)[];
  readonly after: readonly StoredItem[];
}

/** The items of an entry; none where it was about something else. */
export function itemStates({ verb, before, after }: Pick<TrailEntry, 'verb' | 'before' | 'after'>): ItemStates {
  if (!verb.startsWith('item.') || !Array.isArray(after)) return { before: [], after: [] };
  return { before: Array.isArray(before) ? before : [], after };
}

/** What was written on a calendar's items after an instant, in order, at most `most` entries. */
export function trailAfter(
  db: Connection,
  collectionId: number,
  at: number,
  most: number,
): Pick<TrailEntry, 'before' | 'after'>[] {
  return db
    .all<{ before: string | null; after: string | null }>(
      `SELECT before, after FROM trail WHERE collection_id = ? AND at > ? AND verb LIKE 'item.%' ORDER BY id LIMIT ?`,
      collectionId,
      at,
      most,
    )
    .map((row) => ({
      before: row.before === null ? null : JSON.parse(row.before),
      after: row.after === null ? null : JSON.parse(row.after),
    }));
}

interface Row {
  key: string;
  at: number;
  actor_id: number;
  principal_id: number;
  collection_id: number | null;
  subject: string;
  verb: string;
  before: string | null;
  after: string | null;
  hands: string | null;
}

const decode = (r: Row): TrailEntry => ({
  key: r.key,
  at: r.at,
  actorId: r.actor_id,
  principalId: r.principal_id,
  collectionId: r.collection_id,
  subject: r.subject,
  verb: r.verb,
  before: r.before === null ? null : JSON.parse(r.before),
  after: r.after === null ? null : JSON.parse(r.after),
  hands: r.hands,
});

/** What was written about one thing on a calendar, the latest first: at most `most` entries. */
export const trailOf = (db: Connection, subject: string, collectionId: number, most: number): TrailEntry[] =>
  db
    .all<Row>(
      'SELECT * FROM trail WHERE subject = ? AND collection_id = ? ORDER BY id DESC LIMIT ?',
      subject,
      collectionId,
      most,
    )
    .map(decode);

/** The latest entry of a kind about one thing. */
export function lastTrailOf(db: Connection, subject: string, verb: string): TrailEntry | null {
  const row = db.get<Row>('SELECT * FROM trail WHERE subject = ? AND verb = ? ORDER BY id DESC LIMIT 1', subject, verb);
  return row ? decode(row) : null;
}

/** An entry by its key, with the states before and after; `null` where there is none. */
export function trailByKey(db: Connection, key: string): TrailEntry | null {
  const row = db.get<Row>('SELECT * FROM trail WHERE key = ?', key);
  return row ? decode(row) : null;
}
