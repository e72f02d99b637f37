import type { Connection } from '../db/index.ts';
import { COLUMNS, decode, type MessageRow, type StoredMessage } from './message-row.ts';
import { boundTo, type ListReader, SHOWN } from './shown.ts';

/* Who has read what of the messages: each for themselves. */

/** What came so long ago that it is no longer counted as unread: behind so many of a folder. */
const MOST_COUNTED = 2000;
const LATEST = `coalesce((SELECT id FROM message WHERE collection_id = @folder ORDER BY id DESC LIMIT 1 OFFSET @latest), 0)`;

/** Plain mail of a folder that a person hasn't read, the newest first: at most `most`. */
export const unreadMailIn = (db: Connection, folder: number, personId: number, most: number): StoredMessage[] =>
  db
    .all<MessageRow>(
      `SELECT ${COLUMNS} FROM message m WHERE m.collection_id = @folder AND m.kind = 'mail' AND m.meeting_id IS NULL AND m.removed_at IS NULL AND m.actor_id IS NULL
         AND m.id > ${LATEST}
         AND NOT EXISTS (SELECT 1 FROM message_read r WHERE r.person_id = @person AND r.message_id = m.id)
       ORDER BY m.id DESC LIMIT @most`,
      { folder, person: personId, latest: MOST_COUNTED, most },
    )
    .map(decode);

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

/** How many of the latest messages of a folder that are shown to a person they haven't read, to one more than 99. */
export const countUnreadIn = (db: Connection, folder: number, personId: number, reader: ListReader): number =>
  db.get<{ n: number }>(
    `SELECT count(*) AS n FROM (SELECT 1 FROM message WHERE collection_id = @folder AND removed_at IS NULL AND ${SHOWN}
       AND id > ${LATEST} AND actor_id IS NULL AND NOT EXISTS (SELECT 1 FROM message_read r WHERE r.person_id = @person AND r.message_id = message.id)
       ORDER BY id DESC LIMIT 100)`,
    { folder, person: personId, latest: MOST_COUNTED, ...boundTo(reader) },
  )?.n ?? 0;

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
