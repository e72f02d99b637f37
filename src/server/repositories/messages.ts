import type { Connection } from '../db/index.ts';
import { newKey } from '../ids.ts';
import {
  COLUMNS,
  decode,
  type MessageFacts,
  type MessageRow,
  type NewMessage,
  type StoredMessage,
} from './message-row.ts';
import { boundIn, boundTo, HOLDING, type ListReader, type ListTexts, SHOWN } from './shown.ts';

/** Keeps a message. */
export function insertMessage(db: Connection, m: NewMessage): StoredMessage {
  const key = newKey();
  const id = db.run(
    `INSERT INTO message (key, collection_id, at, thread, kind, meeting_id, from_address, from_name, by_address, by_name,
       recipients, subject, body, facts, message_id, in_reply_to, refs, actor_id)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    key,
    m.collectionId,
    m.at,
    m.thread,
    m.kind,
    m.meetingId,
    m.fromAddress,
    m.fromName,
    m.byAddress,
    m.byName,
    JSON.stringify(m.recipients),
    m.subject,
    m.body,
    JSON.stringify(m.facts),
    m.messageId,
    m.inReplyTo,
    JSON.stringify(m.refs),
    m.actorId,
  );
  for (const { digest, bytes } of m.facts.files ?? [])
    if (digest)
      db.run(
        'INSERT INTO message_file (digest, message_id, bytes, at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING',
        digest,
        id,
        bytes,
        m.at,
      );
  return { ...m, id, key, flagged: false, removedAt: null, version: 1 };
}

/** The bytes of the files that came to somebody with mail since an instant. */
export const fileBytesSince = (db: Connection, ownerId: number, since: number): number =>
  db.get<{ n: number | null }>(
    `SELECT sum(f.bytes) AS n FROM message_file f JOIN message m ON m.id = f.message_id JOIN collection c ON c.id = m.collection_id
     WHERE f.at > ? AND c.owner_id = ?`,
    since,
    ownerId,
  )?.n ?? 0;

export function messageByKey(db: Connection, key: string): StoredMessage | null {
  const row = db.get<MessageRow>(`SELECT ${COLUMNS} FROM message m WHERE key = ?`, key);
  return row ? decode(row) : null;
}

/** Messages of a page, by thread, the newest first; `more` is behind which to ask on, `null` where that is all. */
export interface Page {
  readonly messages: readonly StoredMessage[];
  readonly more: number | null;
}

/**
 * The messages of some folders, the newest first, behind those before an id: at most `most`, and of so many threads. Which they are is
 * worked out from ids alone; only what is answered is read whole.
 */
export function pageOf(
  db: Connection,
  folders: readonly number[],
  most: { readonly messages: number; readonly threads: number },
  before: number | null,
): Page {
  // Each folder by itself is read from its end; together they would be sorted whole.
  const rows = folders.flatMap((folder) =>
    db.arrays<[id: number, thread: string]>(
      'SELECT id, thread FROM message WHERE collection_id = ? AND id < ? AND removed_at IS NULL ORDER BY id DESC LIMIT ?',
      folder,
      before ?? Number.MAX_SAFE_INTEGER,
      most.messages,
    ),
  );
  rows.sort((a, b) => b[0] - a[0]);
  const threads = new Set<string>();
  const ids: number[] = [];
  for (const [id, thread] of rows) {
    if (ids.length === most.messages || (!threads.has(thread) && threads.size === most.threads)) break;
    threads.add(thread);
    ids.push(id);
  }
  const messages = db
    .all<MessageRow>(
      `SELECT ${COLUMNS} FROM message m WHERE id IN (SELECT value FROM json_each(?)) ORDER BY id DESC`,
      JSON.stringify(ids),
    )
    .map(decode);
  return { messages, more: ids.length < rows.length ? (ids.at(-1) ?? null) : null };
}

const FOLDERS_OF = `SELECT id FROM collection WHERE owner_id = @owner AND kind = 'folder'`;

/** The messages of somebody's folders that do what they say only once somebody says so, the oldest first: at most `most`. */
export const pendingOf = (db: Connection, owner: number, most: number): StoredMessage[] =>
  db
    .all<MessageRow>(
      `SELECT ${COLUMNS} FROM message m WHERE m.collection_id IN (${FOLDERS_OF})
         AND json_extract(m.facts, '$.pending') IS NOT NULL AND m.removed_at IS NULL ORDER BY m.id LIMIT @most`,
      { owner, most },
    )
    .map(decode);

/** Whether anything of the kind has come to somebody and is still there: what waits for somebody to say so, and plain mail. */
export const whatCame = (db: Connection, owner: number): { readonly pending: boolean; readonly mail: boolean } => {
  const found = db.get<{ pending: number; mail: number }>(
    `SELECT
       EXISTS (SELECT 1 FROM message m WHERE m.collection_id IN (${FOLDERS_OF})
         AND json_extract(m.facts, '$.pending') IS NOT NULL AND m.removed_at IS NULL) AS pending,
       EXISTS (SELECT 1 FROM message m WHERE m.collection_id IN (${FOLDERS_OF}) AND m.kind = 'mail' AND m.meeting_id IS NULL
         AND m.removed_at IS NULL AND m.actor_id IS NULL) AS mail`,
    { owner },
  );
  return { pending: found?.pending === 1, mail: found?.mail === 1 };
};

/** The newest messages of a folder, removed ones too. */
export const latestIn = (db: Connection, folder: number, most: number): StoredMessage[] =>
  db
    .all<MessageRow>(`SELECT ${COLUMNS} FROM message m WHERE collection_id = ? ORDER BY id DESC LIMIT ?`, folder, most)
    .map(decode);

/** Of the newest `among` messages of some folders the mail that is about no meeting and came from one of some addresses, or went to one: the latest first, at most `most`. */
export const messagesWith = (
  db: Connection,
  folders: readonly number[],
  addresses: readonly string[],
  among: number,
  most: number,
): StoredMessage[] =>
  db
    .all<MessageRow>(
      `SELECT ${COLUMNS} FROM message m WHERE id IN (
         SELECT id FROM (
           SELECT id, thread, from_address, recipients FROM message
           WHERE collection_id IN (SELECT value FROM json_each(@folders)) AND removed_at IS NULL ORDER BY id DESC LIMIT @among)
         WHERE thread NOT LIKE 'meeting %' AND (lower(from_address) IN (SELECT value FROM json_each(@addresses)) OR EXISTS (
           SELECT 1 FROM json_each(recipients) r
           WHERE lower(json_extract(r.value, '$.address')) IN (SELECT value FROM json_each(@addresses)))))
       ORDER BY id DESC LIMIT @most`,
      { folders: JSON.stringify(folders), addresses: JSON.stringify(addresses), among, most },
    )
    .map(decode);

/** The messages of one thread in some folders, the oldest first: the latest `most`. */
export function messagesOfThread(
  db: Connection,
  folders: readonly number[],
  thread: string,
  most: number,
): StoredMessage[] {
  return db
    .all<MessageRow>(
      `SELECT ${COLUMNS} FROM message m WHERE collection_id IN (SELECT value FROM json_each(?)) AND thread = ? AND removed_at IS NULL
       ORDER BY id DESC LIMIT ?`,
      JSON.stringify(folders),
      thread,
      most,
    )
    .map(decode)
    .reverse();
}

/** What a mail answers, of what is here: its thread, the meeting that is about, and whether anything in the thread is private. */
export interface Answered {
  readonly thread: string;
  readonly meetingId: number | null;
  readonly private: boolean;
}

/** What a mail answers, by the Message-IDs it names, the likeliest first; `null` where it answers nothing that is here. */
export function answeredMessage(
  db: Connection,
  folders: readonly number[],
  answered: readonly string[],
): Answered | null {
  const among = JSON.stringify(folders);
  for (const id of answered) {
    const found = db.get<{ thread: string; meeting_id: number | null }>(
      `SELECT thread, meeting_id FROM message WHERE message_id = ? AND collection_id IN (SELECT value FROM json_each(?))
       ORDER BY id DESC LIMIT 1`,
      id,
      among,
    );
    if (!found) continue;
    const about = db.get<{ meeting_id: number | null; private: number | null }>(
      `SELECT max(meeting_id) AS meeting_id, max(json_extract(facts, '$.private')) AS private FROM message
       WHERE collection_id IN (SELECT value FROM json_each(?)) AND thread = ?`,
      among,
      found.thread,
    );
    const meetingId = found.meeting_id ?? about?.meeting_id ?? null;
    return { thread: found.thread, meetingId, private: about?.private === 1 };
  }
  return null;
}

/** How many invitations came into a folder since an instant, of one sender, or with `null` of all whom nobody vouches for; counted as far as `most`. */
export function invitationsSince(
  db: Connection,
  folder: number,
  since: number,
  sender: string | null,
  most: number,
): number {
  const of =
    sender === null
      ? db.get<{ n: number }>(
          `SELECT count(*) AS n FROM (SELECT 1 FROM message WHERE collection_id = ? AND at > ? AND kind = 'invitation'
             AND json_extract(facts, '$.checked') = 0 LIMIT ?)`,
          folder,
          since,
          most,
        )
      : db.get<{ n: number }>(
          `SELECT count(*) AS n FROM (SELECT 1 FROM message WHERE collection_id = ? AND from_address = ? AND at > ?
             AND kind = 'invitation' LIMIT ?)`,
          folder,
          sender,
          since,
          most,
        );
  return of?.n ?? 0;
}

/** The handle of whose folder it is. */
export function folderOwner(db: Connection, collectionId: number): string | null {
  const row = db.get<{ handle: string }>(
    `SELECT p.handle FROM collection c JOIN person p ON p.id = c.owner_id WHERE c.id = ? AND c.kind = 'folder'`,
    collectionId,
  );
  return row?.handle ?? null;
}

export function saveFacts(db: Connection, id: number, facts: MessageFacts): void {
  db.run('UPDATE message SET facts = ? WHERE id = ?', JSON.stringify(facts), id);
}

/** Where a message is kept, whether it is flagged, what is written in it: each change is another version. */
export function saveMessage(db: Connection, m: StoredMessage): void {
  db.run(
    `UPDATE message SET collection_id = ?, at = ?, thread = ?, recipients = ?, subject = ?, body = ?, facts = ?, flagged = ?, removed_at = ?,
       in_reply_to = ?, refs = ?, actor_id = ?, version = ? WHERE id = ?`,
    m.collectionId,
    m.at,
    m.thread,
    JSON.stringify(m.recipients),
    m.subject,
    m.body,
    JSON.stringify(m.facts),
    Number(m.flagged),
    m.removedAt,
    m.inReplyTo,
    JSON.stringify(m.refs),
    m.actorId,
    m.version,
    m.id,
  );
}

/** A page of a folder, the newest first, behind an id: those that are there, or those that were removed since an instant. */
export const messagesIn = (
  db: Connection,
  folder: number,
  reader: ListReader,
  before: number | null,
  removedSince: number | null,
  most: number,
): StoredMessage[] =>
  db
    .all<MessageRow>(
      `SELECT ${COLUMNS} FROM message m WHERE collection_id = @folder AND id < @before AND ${SHOWN}
         AND ${removedSince === null ? 'removed_at IS NULL' : 'removed_at > @removedSince'} ORDER BY id DESC LIMIT @most`,
      {
        folder,
        before: before ?? Number.MAX_SAFE_INTEGER,
        most,
        ...boundTo(reader),
        ...(removedSince === null ? {} : { removedSince }),
      },
    )
    .map(decode);

/** Plain mail of a folder in whose texts all of some words stand, the newest first: at most `most`. */
export const mailHolding = (
  db: Connection,
  folders: readonly number[],
  words: readonly string[],
  texts: ListTexts,
  reader: ListReader,
  most: number,
): StoredMessage[] =>
  words.length === 0
    ? []
    : db
        .all<MessageRow>(
          `SELECT ${COLUMNS} FROM message_text JOIN message m ON m.id = message_text.rowid
           WHERE message_text MATCH @match AND ${HOLDING} AND ${SHOWN} ORDER BY message_text.rowid DESC LIMIT @most`,
          { ...boundIn(folders, words, texts), ...boundTo(reader), most },
        )
        .map(decode);

/** How many messages of a folder are shown to somebody, to a most. */
export const countShownIn = (db: Connection, folder: number, reader: ListReader, most: number): number =>
  db.get<{ n: number }>(
    `SELECT count(*) AS n FROM (SELECT 1 FROM message WHERE collection_id = @folder AND removed_at IS NULL AND ${SHOWN} LIMIT @most)`,
    { folder, most, ...boundTo(reader) },
  )?.n ?? 0;

/** Takes away for good what was removed before an instant, at most `most`; answers how many. */
export function forgetMessages(db: Connection, before: number, most: number): number {
  const ids = JSON.stringify(
    db.arrays<[number]>('SELECT id FROM message WHERE removed_at < ? LIMIT ?', before, most).map(([id]) => id),
  );
  db.run('DELETE FROM message_read WHERE message_id IN (SELECT value FROM json_each(?))', ids);
  return db.changes('DELETE FROM message WHERE id IN (SELECT value FROM json_each(?))', ids);
}

/** The newest plain mail of a folder: at most `most`. */
export const plainMailIn = (db: Connection, folder: number, most: number): StoredMessage[] =>
  db
    .all<MessageRow>(
      `SELECT ${COLUMNS} FROM message m WHERE collection_id = ? AND removed_at IS NULL AND kind = 'mail' AND meeting_id IS NULL
       ORDER BY id DESC LIMIT ?`,
      folder,
      most,
    )
    .map(decode);

/** Who sent what arrived last about a meeting in its organiser's name; `null` where they sent it themselves, or nothing is kept. */
export const senderFor = (db: Connection, meetingId: number, organiser: string): string | null =>
  db.get<{ sender: string | null }>(
    `SELECT coalesce(by_name, by_address) AS sender FROM message WHERE meeting_id = ? AND lower(from_address) = lower(?)
     ORDER BY id DESC LIMIT 1`,
    meetingId,
    organiser,
  )?.sender ?? null;
