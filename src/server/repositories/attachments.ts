import type { Connection } from '../db/index.ts';

/** A file at an item. Its bytes stand under the digest in the data folder. */
export interface Attachment {
  readonly id: number;
  readonly key: string;
  readonly itemId: number;
  readonly name: string;
  readonly bytes: number;
  readonly digest: string;
  readonly addedBy: number;
  readonly addedAt: number;
  readonly removedAt: number | null;
}

interface Row {
  id: number;
  key: string;
  item_id: number;
  name: string;
  bytes: number;
  digest: string;
  added_by: number;
  added_at: number;
  removed_at: number | null;
}

const decode = (r: Row): Attachment => ({
  id: r.id,
  key: r.key,
  itemId: r.item_id,
  name: r.name,
  bytes: r.bytes,
  digest: r.digest,
  addedBy: r.added_by,
  addedAt: r.added_at,
  removedAt: r.removed_at,
});

export const attachmentsOf = (db: Connection, itemId: number): Attachment[] =>
  db.all<Row>('SELECT * FROM attachment WHERE item_id = ? AND removed_at IS NULL ORDER BY id', itemId).map(decode);

export const attachmentByKey = (db: Connection, key: string): Attachment | null => {
  const row = db.get<Row>('SELECT * FROM attachment WHERE key = ?', key);
  return row ? decode(row) : null;
};

export function insertAttachment(db: Connection, a: Omit<Attachment, 'id' | 'removedAt'>): void {
  db.run(
    `INSERT INTO attachment (key, item_id, name, bytes, digest, added_by, added_at) VALUES (?, ?, ?, ?, ?, ?, ?)`,
    a.key,
    a.itemId,
    a.name,
    a.bytes,
    a.digest,
    a.addedBy,
    a.addedAt,
  );
}

export function setAttachmentRemoved(db: Connection, id: number, at: number | null): void {
  db.run('UPDATE attachment SET removed_at = ? WHERE id = ?', at, id);
}

/** The bytes somebody added since an instant, those removed again counted. */
export const bytesAddedBy = (db: Connection, personId: number, since: number): number =>
  db.get<{ n: number | null }>(
    'SELECT sum(bytes) AS n FROM attachment WHERE added_by = ? AND added_at > ?',
    personId,
    since,
  )?.n ?? 0;

/** Takes away those that were removed before an instant, at most `most`; answers how many. */
export const forgetAttachments = (db: Connection, before: number, most: number): number =>
  db.changes(
    `DELETE FROM attachment WHERE id IN (SELECT id FROM attachment WHERE removed_at IS NOT NULL AND removed_at < ? LIMIT ?)`,
    before,
    most,
  );

export const digestIsUsed = (db: Connection, digest: string): boolean =>
  db.get<{ n: number }>(
    'SELECT 1 AS n FROM attachment WHERE digest = @digest UNION ALL SELECT 1 FROM message_file WHERE digest = @digest LIMIT 1',
    { digest },
  ) !== undefined;

/** Gives an item the files of another: a series that goes on as another one. */
export function copyAttachments(db: Connection, from: number, to: number, key: () => string): void {
  for (const file of attachmentsOf(db, from)) insertAttachment(db, { ...file, key: key(), itemId: to });
}
