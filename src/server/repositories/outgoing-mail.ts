import type { Connection } from '../db/index.ts';
import type { Mail } from '../mail/mail.ts';

export interface OutgoingMail {
  readonly id: number;
  readonly key: string;
  readonly at: number;
  readonly messageId: string;
  readonly mail: Mail;
  readonly tries: number;
}

interface Row {
  id: number;
  key: string;
  at: number;
  message_id: string;
  mail: string;
  tries: number;
}

const decode = (r: Row): OutgoingMail => ({
  id: r.id,
  key: r.key,
  at: r.at,
  messageId: r.message_id,
  mail: JSON.parse(r.mail),
  tries: r.tries,
});

export function insertMail(
  db: Connection,
  m: {
    readonly key: string;
    readonly at: number;
    readonly collectionId: number | null;
    readonly meetingId: number | null;
    readonly messageId: string;
    readonly mail: Mail;
  },
): void {
  db.run(
    `INSERT INTO outgoing_mail (key, at, collection_id, meeting_id, message_id, to_address, mail, next_try)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
    m.key,
    m.at,
    m.collectionId,
    m.meetingId,
    m.messageId,
    m.mail.to.address,
    JSON.stringify(m.mail),
    m.at,
  );
}

/** The mail due at an instant, the oldest first. */
export function mailDue(db: Connection, now: number, most: number): OutgoingMail[] {
  return db
    .all<Row>(
      'SELECT * FROM outgoing_mail WHERE sent_at IS NULL AND given_up = 0 AND next_try <= ? ORDER BY next_try, id LIMIT ?',
      now,
      most,
    )
    .map(decode);
}

/** A due time beyond any clock: mail that is being sent must not be picked up again. */
const CLAIMED = 9_000_000_000_000_000;

/** Takes a mail out of what is due while it is sent. Answers whether it was still there to be taken. */
export const claimMail = (db: Connection, id: number): boolean =>
  db.changes(
    'UPDATE outgoing_mail SET next_try = ? WHERE id = ? AND sent_at IS NULL AND given_up = 0 AND next_try < ?',
    CLAIMED,
    id,
    CLAIMED,
  ) === 1;

/** What was claimed by a process that ended: tried again where the service knows one that came twice, else given up and shown. */
export function settleClaimedMail(db: Connection, again: boolean): void {
  if (again)
    db.run('UPDATE outgoing_mail SET next_try = 0 WHERE sent_at IS NULL AND given_up = 0 AND next_try = ?', CLAIMED);
  else db.run('UPDATE outgoing_mail SET given_up = 1 WHERE sent_at IS NULL AND given_up = 0 AND next_try = ?', CLAIMED);
}

export function mailSent(db: Connection, id: number, at: number): void {
  db.run('UPDATE outgoing_mail SET sent_at = ? WHERE id = ?', at, id);
}

/** Notes at an instant that a mail couldn't be sent: it is tried again at `nextTry`, or given up where that is `null`. */
export function mailFailed(db: Connection, id: number, at: number, nextTry: number | null): void {
  db.run(
    'UPDATE outgoing_mail SET tries = tries + 1, next_try = ?, given_up = ? WHERE id = ?',
    nextTry ?? at,
    Number(nextTry === null),
    id,
  );
}

/** Sends again, at an instant, what was given up to an address about a meeting. Answers how many. */
export const tryAgain = (db: Connection, meetingId: number, address: string, at: number): number =>
  db.changes(
    'UPDATE outgoing_mail SET given_up = 0, tries = 0, next_try = ? WHERE meeting_id = ? AND to_address = ? AND given_up = 1',
    at,
    meetingId,
    address,
  );

/** Mail of a calendar that was given up and nothing was sent after it to the same address of the same meeting, and when that was; the latest `most`. */
export function mailGivenUp(db: Connection, collectionId: number, most: number): MailGivenUp[] {
  return db
    .all<Omit<MailGivenUp, 'subject'> & { mail: string }>(
      `SELECT m.key, m.meeting_id AS meetingId, m.to_address AS address, m.tries, m.mail,
         CASE WHEN m.next_try BETWEEN m.at AND ? - 1 THEN m.next_try ELSE m.at END AS at
       FROM outgoing_mail m WHERE m.collection_id = ? AND m.given_up = 1 AND NOT EXISTS (
         SELECT 1 FROM outgoing_mail n WHERE n.meeting_id = m.meeting_id AND n.to_address = m.to_address AND n.id > m.id)
       ORDER BY m.id DESC LIMIT ?`,
      CLAIMED,
      collectionId,
      most,
    )
    .map(({ mail, ...row }) => ({ ...row, subject: (JSON.parse(mail) as Mail).subject }));
}

/** Mail that was given up: `at` is when. */
export interface MailGivenUp {
  readonly key: string;
  readonly meetingId: number | null;
  readonly address: string;
  readonly subject: string;
  readonly tries: number;
  readonly at: number;
}

/** Sends a mail that was given up again, at an instant; answers whether it was. */
export const sendGivenUpAgain = (db: Connection, key: string, at: number): boolean =>
  db.changes('UPDATE outgoing_mail SET given_up = 0, tries = 0, next_try = ? WHERE key = ? AND given_up = 1', at, key) >
  0;

/** How the last mail about a meeting to each address stands. */
export function mailAbout(db: Connection, meetingId: number): Map<string, 'waiting' | 'sent' | 'failed'> {
  return new Map(
    db.arrays<[string, 'waiting' | 'sent' | 'failed']>(
      `SELECT to_address, CASE WHEN sent_at IS NOT NULL THEN 'sent' WHEN given_up = 1 THEN 'failed' ELSE 'waiting' END
       FROM outgoing_mail WHERE meeting_id = ? ORDER BY id`,
      meetingId,
    ),
  );
}

/** How much mail is on its way in somebody's name since an instant. */
export const countMailSince = (db: Connection, collectionId: number, since: number): number =>
  db.get<{ n: number }>(
    'SELECT count(*) AS n FROM outgoing_mail WHERE collection_id = ? AND at >= ?',
    collectionId,
    since,
  )?.n ?? 0;

/**
 * The Message-IDs of what was sent to an address, and came from it, about a meeting and all of its occurrences, the oldest first: what is sent
 * next stands beneath them (RFC 5322 3.6.4).
 */
export function mailThread(
  db: Connection,
  { calendarId, uid }: { readonly calendarId: number; readonly uid: string },
  address: string,
): string[] {
  const meetings = '(SELECT id FROM meeting WHERE calendar_id = ? AND uid = ?)';
  return db
    .arrays<[string]>(
      `SELECT message_id FROM (
         SELECT message_id, at, id FROM outgoing_mail WHERE meeting_id IN ${meetings} AND to_address = ?
         UNION ALL
         SELECT message_id, at, id FROM message WHERE meeting_id IN ${meetings} AND from_address = ? AND message_id IS NOT NULL
       ) ORDER BY at DESC, id DESC LIMIT 20`,
      calendarId,
      uid,
      address,
      calendarId,
      uid,
      address,
    )
    .flatMap(([id]) => (/^<[^<>\s]{1,250}>$/.test(id) ? [id] : []))
    .reverse();
}

/** Marks as not arrived what a mail service says it couldn't deliver, by Message-IDs. Answers the meetings it was about. */
export function mailBounced(db: Connection, messageIds: readonly string[]): number[] {
  return messageIds.flatMap((id) => {
    const row = db.get<{ id: number; meeting_id: number | null }>(
      'SELECT id, meeting_id FROM outgoing_mail WHERE message_id = ?',
      id,
    );
    if (!row) return [];
    db.run('UPDATE outgoing_mail SET sent_at = NULL, given_up = 1 WHERE id = ?', row.id);
    return row.meeting_id ?? [];
  });
}
