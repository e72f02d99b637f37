import {
  CHAINED,
  type ChainedFacts,
  type ChainedText,
  type Connection,
  entryDigest,
  newSalt,
  textDigest,
} from '../db/index.ts';
import type { StoredContact } from './contacts.ts';
import type { StoredItem } from './stored-item.ts';
import type { StoredTask } from './tasks.ts';

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

/** Adds an entry at the end of the chain. */
export function recordTrail(db: Connection, entry: TrailEntry): void {
  const said = {
    before: entry.before === null ? null : JSON.stringify(entry.before),
    after: entry.after === null ? null : JSON.stringify(entry.after),
    hands: entry.hands,
  };
  const salt = newSalt();
  const text = textDigest(salt, said);
  db.write(() => {
    const digest = entryDigest(trailHead(db).digest, entry, text);
    db.run(
      `INSERT INTO trail (key, at, actor_id, principal_id, collection_id, subject, verb, before, after, hands, salt, text_digest, digest)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      entry.key,
      entry.at,
      entry.actorId,
      entry.principalId,
      entry.collectionId,
      entry.subject,
      entry.verb,
      said.before,
      said.after,
      said.hands,
      salt,
      text,
      digest,
    );
    db.run('UPDATE trail_head SET entries = entries + 1, digest = ?', digest);
  });
}

/** How many entries the trail has, and the digest of the latest. */
export const trailHead = (db: Connection): { readonly entries: number; readonly digest: string } =>
  db.get<{ entries: number; digest: string }>('SELECT entries, digest FROM trail_head') ?? { entries: 0, digest: '' };

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

/** The same of a write on tasks, or on contacts. */
interface ListedStates<S> {
  readonly before: readonly (S | null)[];
  readonly after: readonly S[];
}
const statesIn =
  <S>(kind: string) =>
  ({ verb, before, after }: Pick<TrailEntry, 'verb' | 'before' | 'after'>): ListedStates<S> =>
    verb.startsWith(kind) && Array.isArray(after)
      ? { before: Array.isArray(before) ? before : [], after }
      : { before: [], after: [] };
export const taskStates = statesIn<StoredTask>('task.');
export const contactStates = statesIn<StoredContact>('contact.');

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
  forgotten_at: number | null;
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

/** What an entry is about, and how many bytes it says, without reading them; `null` where there is none. */
export const weighEntry = (db: Connection, key: string): { readonly verb: string; readonly bytes: number } | null =>
  db.get<{ verb: string; bytes: number }>(
    'SELECT verb, ifnull(octet_length(before), 0) + ifnull(octet_length(after), 0) AS bytes FROM trail WHERE key = ?',
    key,
  ) ?? null;

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

/** Who was behind somebody who gave access on a calendar at an instant, as they said then; `null` where nobody was. */
export const operatorAt = (db: Connection, collectionId: number, at: number, actorId: number): string | null =>
  db.get<{ hands: string }>(
    `SELECT hands FROM trail WHERE collection_id = ? AND at = ? AND actor_id = ? AND verb = 'access.given' AND hands IS NOT NULL LIMIT 1`,
    collectionId,
    at,
    actorId,
  )?.hands ?? null;

/** Who gave or took an audience's access to a collection at an instant, and who was behind a role account that did. */
export const accessActAt = (
  db: Connection,
  collectionId: number,
  audience: string,
  at: number,
): { readonly actorId: number; readonly hands: string | null } | null =>
  db.get<{ actorId: number; hands: string | null }>(
    `SELECT actor_id AS actorId, hands FROM trail
     WHERE subject = ? AND collection_id = ? AND at = ? AND verb IN ('access.given', 'access.taken') LIMIT 1`,
    audience,
    collectionId,
    at,
  ) ?? null;

/** The number of the last entry about a collection; 0 where there is none. */
export const lastEntryOn = (db: Connection, collectionId: number): number =>
  db.get<{ last: number | null }>('SELECT max(id) AS last FROM trail WHERE collection_id = ?', collectionId)?.last ?? 0;

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

/** An entry with when what it said was forgotten, if it was. */
export interface StoredTrailEntry extends TrailEntry {
  readonly forgottenAt: number | null;
}

/** Which entries are looked for: by row numbers, between two instants, of kinds (the first part of a verb) or of all but those. */
export interface TrailScope {
  readonly calendarId: number | null;
  readonly actorId: number | null;
  readonly principalId: number | null;
  /** Only those in somebody else's name than the actor's. */
  readonly forOthers: boolean;
  readonly from: number | null;
  readonly until: number | null;
  readonly kinds: readonly string[] | null;
  readonly butKinds: boolean;
  /** The one calendar that may be read at all. */
  readonly only: number | null;
}

/** What is read by an index: one calendar, what was done in one name, or by one person for others. The latest of it are at its end. */
const readBy = ({ calendarId, forOthers }: TrailScope): string =>
  calendarId !== null
    ? 'collection_id = @calendarId'
    : forOthers
      ? 'actor_id = @actorId AND principal_id <> actor_id'
      : // Whoever says something of a meeting says it in their own name, wherever it is written.
        `principal_id = @principalId AND (verb <> 'item.said' OR actor_id = principal_id)`;

const NARROWED = `(@actorId IS NULL OR actor_id = @actorId) AND (@principalId IS NULL OR principal_id = @principalId)
  AND (@from IS NULL OR at >= @from) AND (@until IS NULL OR at < @until) AND (@only IS NULL OR collection_id = @only)
  AND (@kinds IS NULL OR (substr(verb, 1, instr(verb, '.') - 1) IN (SELECT value FROM json_each(@kinds))) <> @butKinds)`;

const bound = ({ forOthers: _, ...scope }: TrailScope) => ({
  ...scope,
  butKinds: Number(scope.butKinds),
  kinds: scope.kinds === null ? null : JSON.stringify(scope.kinds),
});

/** Entries of a scope, the latest first, after one by key: at most `most`. */
export const trailEntries = (
  db: Connection,
  scope: TrailScope,
  after: string | null,
  most: number,
): StoredTrailEntry[] =>
  db
    .all<Row>(
      `SELECT * FROM trail WHERE ${readBy(scope)} AND ${NARROWED}
         AND (@after IS NULL OR id < (SELECT id FROM trail WHERE key = @after)) ORDER BY id DESC LIMIT @most`,
      { ...bound(scope), after, most },
    )
    .map((row) => ({ ...decode(row), forgottenAt: row.forgotten_at }));

/** Who acted in a scope (for what one did for others: for whom), by row number, among the latest two thousand entries; at most `most`. */
export const trailPeople = (db: Connection, scope: TrailScope, most: number): number[] =>
  db
    .arrays<[number]>(
      `SELECT DISTINCT ${scope.forOthers ? 'principal_id' : 'actor_id'} FROM (
         SELECT actor_id, principal_id FROM trail WHERE ${readBy(scope)} AND ${NARROWED} ORDER BY id DESC LIMIT 2000) LIMIT @most`,
      {
        ...bound({ ...scope, ...(scope.forOthers ? { principalId: null } : { actorId: null }) }),
        most,
      },
    )
    .map(([id]) => id);

/** An entry as the chain holds it. */
export interface ChainLink extends ChainedFacts, ChainedText {
  readonly id: number;
  readonly salt: string | null;
  readonly textDigest: string;
  readonly digest: string;
  readonly forgottenAt: number | null;
}

/** Entries after a row number, in order: at most `most`. */
export const chainAfter = (db: Connection, id: number, most: number): ChainLink[] =>
  db.all<ChainLink>(
    `SELECT id, ${CHAINED}, salt, text_digest AS textDigest, digest, forgotten_at AS forgottenAt FROM trail
     WHERE id > ? ORDER BY id LIMIT ?`,
    id,
    most,
  );

/** The digest of the latest entry before an instant; empty where there is none. */
export const digestBefore = (db: Connection, at: number): string =>
  db.get<{ digest: string }>('SELECT digest FROM trail WHERE at < ? ORDER BY id DESC LIMIT 1', at)?.digest ?? '';

/**
 * The keys of the entries that say something of a subject: that entry itself, those about it, and those that hold it among others. What says that
 * something was forgotten is none of them: it names entries alone, and the chain needs it.
 */
export const entriesSaying = (db: Connection, subject: string): string[] =>
  db
    .all<{ key: string }>(
      `SELECT key FROM trail WHERE forgotten_at IS NULL AND verb <> 'trail.forgotten' AND
         (key = @subject OR subject = @subject OR instr(coalesce(before, ''), @quoted) > 0 OR instr(coalesce(after, ''), @quoted) > 0) ORDER BY id`,
      { subject, quoted: `"key":${JSON.stringify(subject)}` },
    )
    .map(({ key }) => key);

/** Forgets what an entry said; that it was there, when, by whom and about what subject stays. */
export function forgetEntry(db: Connection, key: string, at: number): void {
  db.run(
    'UPDATE trail SET before = NULL, after = NULL, hands = NULL, salt = NULL, forgotten_at = ? WHERE key = ? AND forgotten_at IS NULL',
    at,
    key,
  );
}
