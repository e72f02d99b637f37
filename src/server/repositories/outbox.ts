import type { Connection } from '../db/index.ts';

/** A letter to somebody outside, to be written and sent: what of, and with which words. */
export interface Outgoing {
  readonly id: number;
  readonly key: string;
  readonly at: number;
  readonly personId: number;
  readonly kind:
    | 'given'
    | 'changed'
    | 'taken'
    | 'ending'
    | 'wayIn'
    | 'wayInMade'
    | 'passwordMade'
    | 'reminder'
    | 'refused'
    | 'morning'
    | 'evening';
  readonly collectionId: number | null;
  readonly grantId: number | null;
  readonly byId: number | null;
  readonly note: string;
  readonly tries: number;
}

interface Row {
  id: number;
  key: string;
  at: number;
  person_id: number;
  kind: Outgoing['kind'];
  collection_id: number | null;
  grant_id: number | null;
  by_id: number | null;
  note: string;
  tries: number;
}

const decode = (r: Row): Outgoing => ({
  id: r.id,
  key: r.key,
  at: r.at,
  personId: r.person_id,
  kind: r.kind,
  collectionId: r.collection_id,
  grantId: r.grant_id,
  byId: r.by_id,
  note: r.note,
  tries: r.tries,
});

export function insertOutgoing(db: Connection, o: Omit<Outgoing, 'id' | 'tries'>): void {
  db.run(
    `INSERT INTO outbox (key, at, person_id, kind, collection_id, grant_id, by_id, note, next_try)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    o.key,
    o.at,
    o.personId,
    o.kind,
    o.collectionId,
    o.grantId,
    o.byId,
    o.note,
    o.at,
  );
}

/** The letters due at an instant, the oldest first. */
export function outgoingDue(db: Connection, now: number, most: number): Outgoing[] {
  return db
    .all<Row>(
      'SELECT * FROM outbox WHERE sent_at IS NULL AND given_up = 0 AND next_try <= ? ORDER BY next_try, id LIMIT ?',
      now,
      most,
    )
    .map(decode);
}

/** Whether a letter that a grant ends was written to a person. */
export function wasRemindedOf(db: Connection, grantId: number, personId: number): boolean {
  return (
    db.get(`SELECT 1 FROM outbox WHERE kind = 'ending' AND grant_id = ? AND person_id = ?`, grantId, personId) !==
    undefined
  );
}

/** Whether a person was ever told by letter of their access to a calendar. */
export function wasToldByLetter(db: Connection, collectionId: number, personId: number): boolean {
  return (
    db.get(
      `SELECT 1 FROM outbox WHERE kind IN ('given', 'changed') AND collection_id = ? AND person_id = ? LIMIT 1`,
      collectionId,
      personId,
    ) !== undefined
  );
}

/** A due time beyond any clock: a letter that is being sent must not be picked up again. */
const CLAIMED = 9_000_000_000_000_000;

/** Takes a letter out of what is due while it is sent. */
export function claim(db: Connection, id: number): void {
  db.run('UPDATE outbox SET next_try = ? WHERE id = ?', CLAIMED, id);
}

/** Gives up every letter that was claimed and neither sent nor failed. */
export function giveUpClaimed(db: Connection): void {
  db.run('UPDATE outbox SET given_up = 1 WHERE sent_at IS NULL AND given_up = 0 AND next_try = ?', CLAIMED);
}

export function markSent(db: Connection, id: number, at: number): void {
  db.run('UPDATE outbox SET sent_at = ? WHERE id = ?', at, id);
}

/** Notes that a letter couldn't be sent: it is tried again at `nextTry`, or given up where that is `null`. */
export function markFailed(db: Connection, id: number, nextTry: number | null): void {
  db.run(
    'UPDATE outbox SET tries = tries + 1, next_try = coalesce(?, 0), given_up = ? WHERE id = ?',
    nextTry,
    Number(nextTry === null),
    id,
  );
}

/** What became of the letters about each grant of a calendar: the newest one's state, by the grant's row number. */
export function lettersAbout(db: Connection, collectionId: number): Map<number, 'waiting' | 'sent' | 'failed'> {
  return new Map(
    db.arrays<[number, 'waiting' | 'sent' | 'failed']>(
      `SELECT grant_id, CASE WHEN sent_at IS NOT NULL THEN 'sent' WHEN given_up = 1 THEN 'failed' ELSE 'waiting' END
       FROM outbox WHERE collection_id = ? AND grant_id IS NOT NULL AND kind <> 'ending' ORDER BY id`,
      collectionId,
    ),
  );
}
