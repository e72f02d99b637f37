import type { Rights } from '@/core/access/index.ts';
import type { Connection } from '../db/index.ts';

/**
 * A request for access: of the main calendar of whoever is asked, or of a further one (`collectionId`). `starts` and `ends` are for how long
 * it is asked, `gave` the grant by which the asker showed their own calendar in the same act.
 */
export interface AccessRequest {
  readonly id: number;
  readonly key: string;
  readonly fromId: number;
  readonly toId: number;
  readonly collectionId: number | null;
  readonly at: number;
  readonly rights: Rights;
  readonly starts: number | null;
  readonly ends: number | null;
  readonly why: string;
  readonly gave: number | null;
  readonly state: 'open' | 'given' | 'refused' | 'takenBack';
  readonly turns: number;
  readonly nudgedAt: number | null;
  readonly heard: boolean;
}

/** What was answered to an access request; `quiet` is a no that the asker sees as closed alone. */
export interface AccessRequestAnswered {
  readonly at: number;
  readonly answer: 'given' | 'refused';
  readonly byId: number;
  readonly forId: number;
  readonly grantId: number | null;
  readonly note: string;
  readonly quiet: boolean;
}

interface Row {
  id: number;
  key: string;
  from_id: number;
  to_id: number;
  collection_id: number | null;
  at: number;
  rights: string;
  starts: number | null;
  ends: number | null;
  why: string;
  gave: number | null;
  state: AccessRequest['state'];
  turns: number;
  nudged_at: number | null;
  heard: 0 | 1;
}

const decode = (r: Row): AccessRequest => ({
  id: r.id,
  key: r.key,
  fromId: r.from_id,
  toId: r.to_id,
  collectionId: r.collection_id,
  at: r.at,
  rights: JSON.parse(r.rights) as Rights,
  starts: r.starts,
  ends: r.ends,
  why: r.why,
  gave: r.gave,
  state: r.state,
  turns: r.turns,
  nudgedAt: r.nudged_at,
  heard: r.heard === 1,
});

export function accessRequestByKey(db: Connection, key: string): AccessRequest | null {
  const row = db.get<Row>('SELECT * FROM ask WHERE key = ?', key);
  return row ? decode(row) : null;
}

/** The ask of one person to another about a calendar (`null`: the main one), however it stands. */
export function accessRequestBetween(
  db: Connection,
  fromId: number,
  toId: number,
  collectionId: number | null,
): AccessRequest | null {
  const row = db.get<Row>(
    'SELECT * FROM ask WHERE from_id = ? AND to_id = ? AND coalesce(collection_id, 0) = ?',
    fromId,
    toId,
    collectionId ?? 0,
  );
  return row ? decode(row) : null;
}

/** A person's own access requests, the latest first. */
export function accessRequestsFrom(db: Connection, fromId: number, most: number): AccessRequest[] {
  return db.all<Row>('SELECT * FROM ask WHERE from_id = ? ORDER BY at DESC LIMIT ?', fromId, most).map(decode);
}

/** A calendar that is asked about: whose it is now, and its row number, or `null` for the main one. */
export interface AccessRequestSubject {
  readonly toId: number;
  readonly collectionId: number | null;
}

/** The rows about some calendars, but for those of one asker (`?` both: the calendars as JSON, the asker). */
const ABOUT = `FROM ask JOIN json_each(?) about ON ask.to_id = about.value ->> 'toId'
  AND coalesce(ask.collection_id, 0) = coalesce(about.value ->> 'collectionId', 0) WHERE ask.from_id <> ?`;

/** What others than `but` ask about some calendars and wasn't taken back: what waits first, then the latest. */
export function accessRequestsAbout(
  db: Connection,
  calendars: readonly AccessRequestSubject[],
  but: number,
  most: number,
): AccessRequest[] {
  return db
    .all<Row>(
      `SELECT ask.* ${ABOUT} AND state <> 'takenBack' ORDER BY state = 'open' DESC, at DESC LIMIT ?`,
      JSON.stringify(calendars),
      but,
      most,
    )
    .map(decode);
}

/** How many asks about some calendars, of others than `but`, wait for an answer. */
export function openAccessRequestsAbout(
  db: Connection,
  calendars: readonly AccessRequestSubject[],
  but: number,
): number {
  const subjects = JSON.stringify(calendars);
  return db.get<{ n: number }>(`SELECT count(*) AS n ${ABOUT} AND state = 'open'`, subjects, but)?.n ?? 0;
}

/** How many asks of a person wait for an answer. */
export function openAccessRequestsFrom(db: Connection, fromId: number): number {
  return db.get<{ n: number }>(`SELECT count(*) AS n FROM ask WHERE from_id = ? AND state = 'open'`, fromId)?.n ?? 0;
}

/** How many of a person's asks were answered since they last looked. */
export function unheardAccessRequests(db: Connection, fromId: number): number {
  return db.get<{ n: number }>('SELECT count(*) AS n FROM ask WHERE from_id = ? AND heard = 0', fromId)?.n ?? 0;
}

export function markAccessRequestsHeard(db: Connection, fromId: number): void {
  db.run('UPDATE ask SET heard = 1 WHERE from_id = ? AND heard = 0', fromId);
}

type PutAccessRequest = Pick<
  AccessRequest,
  'key' | 'fromId' | 'toId' | 'collectionId' | 'at' | 'rights' | 'starts' | 'ends' | 'why' | 'gave'
>;

/** Records an access request; one that is there for the pair and the calendar is taken up again with the new words. */
export function putAccessRequest(db: Connection, a: PutAccessRequest): void {
  db.run(
    `INSERT INTO ask (key, from_id, to_id, collection_id, at, rights, starts, ends, why, gave)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON CONFLICT (from_id, to_id, coalesce(collection_id, 0)) DO UPDATE SET at = excluded.at, rights = excluded.rights,
       starts = excluded.starts, ends = excluded.ends, why = excluded.why, gave = coalesce(excluded.gave, gave),
       state = 'open', turns = turns + 1, nudged_at = NULL, heard = 1`,
    a.key,
    a.fromId,
    a.toId,
    a.collectionId,
    a.at,
    JSON.stringify(a.rights),
    a.starts,
    a.ends,
    a.why,
    a.gave,
  );
}

/** Records an answer, which is how the access request stands from now on. */
export function putAnswer(db: Connection, requestId: number, a: AccessRequestAnswered): void {
  db.run(
    'INSERT INTO ask_answer (ask_id, at, answer, by_id, for_id, grant_id, note, quiet) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    requestId,
    a.at,
    a.answer,
    a.byId,
    a.forId,
    a.grantId,
    a.note,
    Number(a.quiet),
  );
  db.run('UPDATE ask SET state = ?, turns = turns + 1, heard = ? WHERE id = ?', a.answer, Number(a.quiet), requestId);
}

export function setNudged(db: Connection, requestId: number, at: number): void {
  db.run('UPDATE ask SET nudged_at = ? WHERE id = ?', at, requestId);
}

export function setTakenBack(db: Connection, requestId: number): void {
  db.run(`UPDATE ask SET state = 'takenBack', turns = turns + 1, heard = 1 WHERE id = ?`, requestId);
}

/** Closes every ask that waits, of somebody and to them. */
export function closeAccessRequestsWith(db: Connection, personId: number): void {
  db.run(
    `UPDATE ask SET state = 'takenBack', turns = turns + 1 WHERE state = 'open' AND (from_id = @personId OR to_id = @personId)`,
    { personId },
  );
}

/** The answers to an access request, the latest last, at most the last `most`. */
export function answersTo(db: Connection, requestId: number, most: number): AccessRequestAnswered[] {
  return db
    .all<{
      at: number;
      answer: AccessRequestAnswered['answer'];
      by_id: number;
      for_id: number;
      grant_id: number | null;
      note: string;
      quiet: 0 | 1;
    }>('SELECT * FROM ask_answer WHERE ask_id = ? ORDER BY id DESC LIMIT ?', requestId, most)
    .map((r) => ({
      at: r.at,
      answer: r.answer,
      byId: r.by_id,
      forId: r.for_id,
      grantId: r.grant_id,
      note: r.note,
      quiet: r.quiet === 1,
    }))
    .reverse();
}

/** Adds the words that go with the last answer to an access request. */
export function setAnswerNote(db: Connection, requestId: number, note: string): void {
  db.run(
    'UPDATE ask_answer SET note = ? WHERE id = (SELECT max(id) FROM ask_answer WHERE ask_id = ?)',
    note,
    requestId,
  );
}
