import type { Message } from '@/core/meetings/index.ts';
import type { Connection } from '../db/index.ts';
import { newKey } from '../ids.ts';
import { insertCollection } from './collections.ts';

/** The folders everybody begins with. */
export type FolderName = 'Arrived' | 'Sent' | 'Drafts' | 'Filed';

/** What a message is: of a meeting, by what it does, or plain mail. */
export type MessageKind =
  | 'invitation'
  | 'change'
  | 'calledOff'
  | 'answer'
  | 'counter'
  | 'counterDeclined'
  | 'stateAsked'
  | 'forInformation'
  | 'chosen'
  | 'question'
  | 'mail';

/** What matters of a message beside who, when and its words; times as texts on the clock of `zone`. */
export interface MessageFacts {
  readonly title?: string;
  readonly time?: { readonly start: string; readonly end: string; readonly allDay: boolean; readonly zone: string };
  readonly place?: string | null;
  readonly answer?: 'accepted' | 'declined' | 'tentative' | 'needs-action';
  readonly attendee?: string;
  /** Its sender marked what it is about as private. */
  readonly private?: true;
  readonly why?: string;
  /** A scheduling message that does what it says only once a person says so. */
  readonly pending?: Message;
  /** Whether the mail service vouches for its sender; absent for what never left the house. */
  readonly checked?: boolean;
  /** What couldn't be read of it. */
  readonly mark?: 'unreadable' | 'tooDeep' | 'leftOut';
  /** How many calendar parts and items of the mail were left out, since one mail has a most. */
  readonly leftOut?: number;
  /** Whom an attendee would send instead of themselves. */
  readonly sentInstead?: string;
  /** Nobody wrote it at that moment: the answer of an away notice. */
  readonly automatic?: true;
  readonly files?: readonly { readonly name: string; readonly bytes: number }[];
}

export interface StoredMessage {
  readonly id: number;
  readonly key: string;
  readonly collectionId: number;
  readonly at: number;
  readonly thread: string;
  readonly kind: MessageKind;
  readonly meetingId: number | null;
  readonly fromAddress: string;
  readonly fromName: string | null;
  /** Who sent it in that one's name. */
  readonly byAddress: string | null;
  readonly byName: string | null;
  readonly recipients: readonly { readonly address: string; readonly name: string | null }[];
  readonly subject: string;
  readonly body: string;
  readonly facts: MessageFacts;
  readonly messageId: string | null;
  readonly inReplyTo: string | null;
  readonly refs: readonly string[];
  /** Who of ours wrote it. */
  readonly actorId: number | null;
}

interface Row {
  id: number;
  key: string;
  collection_id: number;
  at: number;
  thread: string;
  kind: MessageKind;
  meeting_id: number | null;
  from_address: string;
  from_name: string | null;
  by_address: string | null;
  by_name: string | null;
  recipients: string;
  subject: string;
  body: string;
  facts: string;
  message_id: string | null;
  in_reply_to: string | null;
  refs: string;
  actor_id: number | null;
}

const decode = (r: Row): StoredMessage => ({
  id: r.id,
  key: r.key,
  collectionId: r.collection_id,
  at: r.at,
  thread: r.thread,
  kind: r.kind,
  meetingId: r.meeting_id,
  fromAddress: r.from_address,
  fromName: r.from_name,
  byAddress: r.by_address,
  byName: r.by_name,
  recipients: JSON.parse(r.recipients),
  subject: r.subject,
  body: r.body,
  facts: JSON.parse(r.facts),
  messageId: r.message_id,
  inReplyTo: r.in_reply_to,
  refs: JSON.parse(r.refs),
  actorId: r.actor_id,
});

/** The row number of a person's folder, made where it isn't there yet. */
export function folderOf(db: Connection, ownerId: number, name: FolderName): number {
  const found = findFolder(db, ownerId, name);
  if (found !== null) return found;
  return insertCollection(db, { key: newKey(), kind: 'folder', ownerId, name, main: false });
}

export function findFolder(db: Connection, ownerId: number, name: FolderName): number | null {
  const row = db.get<{ id: number }>(
    `SELECT id FROM collection WHERE kind = 'folder' AND owner_id = ? AND name = ?`,
    ownerId,
    name,
  );
  return row?.id ?? null;
}

export function insertMessage(db: Connection, m: Omit<StoredMessage, 'id' | 'key'>): StoredMessage {
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
  return { ...m, id, key };
}

export function messageByKey(db: Connection, key: string): StoredMessage | null {
  const row = db.get<Row>('SELECT * FROM message WHERE key = ?', key);
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
      'SELECT id, thread FROM message WHERE collection_id = ? AND id < ? ORDER BY id DESC LIMIT ?',
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
    .all<Row>(
      'SELECT * FROM message WHERE id IN (SELECT value FROM json_each(?)) ORDER BY id DESC',
      JSON.stringify(ids),
    )
    .map(decode);
  return { messages, more: ids.length < rows.length ? (ids.at(-1) ?? null) : null };
}

/** The messages of a folder that do what they say only once somebody says so, the oldest first: at most `most`. */
export const pendingIn = (db: Connection, folder: number, most: number): StoredMessage[] =>
  db
    .all<Row>(
      `SELECT * FROM message WHERE collection_id = ? AND json_extract(facts, '$.pending') IS NOT NULL ORDER BY id LIMIT ?`,
      folder,
      most,
    )
    .map(decode);

/** Plain mail of a folder that a person hasn't read, the newest first: at most `most`. */
export const unreadMailIn = (db: Connection, folder: number, personId: number, most: number): StoredMessage[] =>
  db
    .all<Row>(
      `SELECT m.* FROM message m WHERE m.collection_id = ? AND m.kind = 'mail' AND m.meeting_id IS NULL
         AND m.id > coalesce((SELECT id FROM message WHERE collection_id = ? ORDER BY id DESC LIMIT 1 OFFSET 2000), 0)
         AND NOT EXISTS (SELECT 1 FROM message_read r WHERE r.person_id = ? AND r.message_id = m.id)
       ORDER BY m.id DESC LIMIT ?`,
      folder,
      folder,
      personId,
      most,
    )
    .map(decode);

/** The newest messages of a folder. */
export const latestIn = (db: Connection, folder: number, most: number): StoredMessage[] =>
  db.all<Row>('SELECT * FROM message WHERE collection_id = ? ORDER BY id DESC LIMIT ?', folder, most).map(decode);

/** Of the newest `among` messages of some folders the mail that is about no meeting and came from one of some addresses, or went to one: the latest first, at most `most`. */
export const messagesWith = (
  db: Connection,
  folders: readonly number[],
  addresses: readonly string[],
  among: number,
  most: number,
): StoredMessage[] =>
  db
    .all<Row>(
      `SELECT * FROM message WHERE id IN (
         SELECT id FROM (
           SELECT id, thread, from_address, recipients FROM message
           WHERE collection_id IN (SELECT value FROM json_each(@folders)) ORDER BY id DESC LIMIT @among)
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
  const [arrived = -1, sent = -1] = folders;
  return db
    .all<Row>(
      'SELECT * FROM message WHERE collection_id IN (?, ?) AND thread = ? ORDER BY id DESC LIMIT ?',
      arrived,
      sent,
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
  const [arrived = -1, sent = -1] = folders;
  for (const id of answered) {
    const found = db.get<{ thread: string; meeting_id: number | null }>(
      'SELECT thread, meeting_id FROM message WHERE collection_id IN (?, ?) AND message_id = ? ORDER BY id DESC LIMIT 1',
      arrived,
      sent,
      id,
    );
    if (!found) continue;
    const about = db.get<{ meeting_id: number | null; private: number | null }>(
      `SELECT max(meeting_id) AS meeting_id, max(json_extract(facts, '$.private')) AS private FROM message
       WHERE collection_id IN (?, ?) AND thread = ?`,
      arrived,
      sent,
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

/** Which of some messages a person has read. */
export function readOf(db: Connection, personId: number, from: number, to: number): Set<number> {
  return new Set(
    db
      .arrays<[number]>(
        'SELECT message_id FROM message_read WHERE person_id = ? AND message_id BETWEEN ? AND ?',
        personId,
        from,
        to,
      )
      .map(([id]) => id),
  );
}

export function markRead(db: Connection, personId: number, messageIds: readonly number[]): void {
  for (const id of messageIds)
    db.run('INSERT INTO message_read (person_id, message_id) VALUES (?, ?) ON CONFLICT DO NOTHING', personId, id);
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

/**
 * How many messages of a folder a person hasn't read, to one more than 99. Plain mail is its owner's alone, and what is private isn't
 * counted for whoever isn't let into that.
 */
export function countUnread(
  db: Connection,
  folder: number,
  personId: number,
  own: boolean,
  seesPrivate: boolean,
): number {
  return (
    db.get<{ n: number }>(
      `SELECT count(*) AS n FROM (SELECT 1 FROM message m WHERE m.collection_id = ?
         AND NOT EXISTS (SELECT 1 FROM message_read r WHERE r.person_id = ? AND r.message_id = m.id)
         AND (? OR (m.meeting_id IS NOT NULL AND (? OR (coalesce(json_extract(m.facts, '$.private'), 0) = 0
           AND NOT EXISTS (SELECT 1 FROM meeting g JOIN item i ON i.id = g.item_id
             WHERE g.id = m.meeting_id AND i.visibility = 'private')))))
         ORDER BY m.id DESC LIMIT 100)`,
      folder,
      personId,
      Number(own),
      Number(seesPrivate),
    )?.n ?? 0
  );
}
