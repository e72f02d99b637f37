import type { Message } from '@/core/meetings/index.ts';
import type { Connection } from '../db/index.ts';
import { newKey } from '../ids.ts';
import { boundIn, boundTo, HOLDING, type ListReader, type ListTexts, SHOWN } from './shown.ts';

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

/** A file that came with a message: its bytes stand in the data folder under the digest, where there is one. */
export interface MessageFile {
  readonly name: string;
  readonly bytes: number;
  readonly type?: string;
  readonly digest?: string;
}

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
  readonly files?: readonly MessageFile[];
  /** Of what is still being written: what it answers. */
  readonly answers?: string;
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
  readonly flagged: boolean;
  readonly removedAt: number | null;
  readonly version: number;
}
/** A message that is about to be kept. */
export type NewMessage = Omit<StoredMessage, 'id' | 'key' | 'flagged' | 'removedAt' | 'version'>;

/** What is read of a message: without what is worked out of its facts for the conditions of queries. */
const COLUMNS = (
  'id key collection_id at thread kind meeting_id from_address from_name by_address by_name recipients subject body facts ' +
  'message_id in_reply_to refs actor_id flagged removed_at version'
)
  .split(' ')
  .map((name) => `m.${name}`)
  .join(', ');

/** Whether a message is about a meeting, and so belongs to the thread of that. */
export const isAboutMeeting = (m: Pick<StoredMessage, 'thread'>): boolean => m.thread.startsWith('meeting ');

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
  flagged: 0 | 1;
  removed_at: number | null;
  version: number;
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
  flagged: r.flagged === 1,
  removedAt: r.removed_at,
  version: r.version,
});

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
  const row = db.get<Row>(`SELECT ${COLUMNS} FROM message m WHERE key = ?`, key);
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
    .all<Row>(
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
    .all<Row>(
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

/** Plain mail of a folder that a person hasn't read, the newest first: at most `most`. */
export const unreadMailIn = (db: Connection, folder: number, personId: number, most: number): StoredMessage[] =>
  db
    .all<Row>(
      `SELECT ${COLUMNS} FROM message m WHERE m.collection_id = ? AND m.kind = 'mail' AND m.meeting_id IS NULL AND m.removed_at IS NULL AND m.actor_id IS NULL
         AND m.id > coalesce((SELECT id FROM message WHERE collection_id = ? ORDER BY id DESC LIMIT 1 OFFSET 2000), 0)
         AND NOT EXISTS (SELECT 1 FROM message_read r WHERE r.person_id = ? AND r.message_id = m.id)
       ORDER BY m.id DESC LIMIT ?`,
      folder,
      folder,
      personId,
      most,
    )
    .map(decode);

/** The newest messages of a folder, removed ones too. */
export const latestIn = (db: Connection, folder: number, most: number): StoredMessage[] =>
  db
    .all<Row>(`SELECT ${COLUMNS} FROM message m WHERE collection_id = ? ORDER BY id DESC LIMIT ?`, folder, most)
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
    .all<Row>(
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
    .all<Row>(
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

export function markUnread(db: Connection, personId: number, messageIds: readonly number[]): void {
  for (const id of messageIds) db.run('DELETE FROM message_read WHERE person_id = ? AND message_id = ?', personId, id);
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
      `SELECT count(*) AS n FROM (SELECT 1 FROM message m WHERE m.collection_id = @folder AND m.removed_at IS NULL
         AND m.id > ${LATEST}
         AND NOT EXISTS (SELECT 1 FROM message_read r WHERE r.person_id = @person AND r.message_id = m.id)
         AND (@own OR (m.meeting_id IS NOT NULL AND (@seesPrivate OR (coalesce(json_extract(m.facts, '$.private'), 0) = 0
           AND NOT EXISTS (SELECT 1 FROM meeting g JOIN item i ON i.id = g.item_id
             WHERE g.id = m.meeting_id AND i.visibility = 'private')))))
         ORDER BY m.id DESC LIMIT 100)`,
      {
        folder,
        person: personId,
        own: Number(own),
        seesPrivate: Number(seesPrivate),
        latest: MOST_COUNTED,
      },
    )?.n ?? 0
  );
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
    .all<Row>(
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
  folder: number,
  words: readonly string[],
  texts: ListTexts,
  reader: ListReader,
  most: number,
): StoredMessage[] =>
  words.length === 0
    ? []
    : db
        .all<Row>(
          `SELECT ${COLUMNS} FROM message_text JOIN message m ON m.id = message_text.rowid
           WHERE message_text MATCH @match AND ${HOLDING} AND ${SHOWN} ORDER BY message_text.rowid DESC LIMIT @most`,
          { ...boundIn(folder, words, texts), ...boundTo(reader), most },
        )
        .map(decode);

/** What came so long ago that it is no longer counted as unread: behind so many of a folder. */
const MOST_COUNTED = 2000;
const LATEST = `coalesce((SELECT id FROM message WHERE collection_id = @folder ORDER BY id DESC LIMIT 1 OFFSET @latest), 0)`;

/** How many of the latest messages of a folder that are shown to a person they haven't read, to one more than 99. */
export const countUnreadIn = (db: Connection, folder: number, personId: number, reader: ListReader): number =>
  db.get<{ n: number }>(
    `SELECT count(*) AS n FROM (SELECT 1 FROM message WHERE collection_id = @folder AND removed_at IS NULL AND ${SHOWN}
       AND id > ${LATEST} AND actor_id IS NULL AND NOT EXISTS (SELECT 1 FROM message_read r WHERE r.person_id = @person AND r.message_id = message.id)
       ORDER BY id DESC LIMIT 100)`,
    { folder, person: personId, latest: MOST_COUNTED, ...boundTo(reader) },
  )?.n ?? 0;

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
    .all<Row>(
      `SELECT ${COLUMNS} FROM message m WHERE collection_id = ? AND removed_at IS NULL AND kind = 'mail' AND meeting_id IS NULL
       ORDER BY id DESC LIMIT ?`,
      folder,
      most,
    )
    .map(decode);
