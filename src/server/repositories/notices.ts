import type { Connection } from '../db/index.ts';

/**
 * What somebody was told: of access to a calendar (`ownerId` is whose it was then, `grantId` the grant it speaks of, none where one
 * was taken away), that somebody came into a group that opens theirs, that a further
 * calendar was made for them (the grant is what its maker keeps), or that their own way to sign in was made anew.
 */
export interface Notice {
  readonly key: string;
  readonly personId: number;
  readonly at: number;
  readonly kind: 'given' | 'changed' | 'taken' | 'joined' | 'begun' | 'wayInMade' | 'passwordMade';
  readonly collectionId: number | null;
  readonly ownerId: number | null;
  readonly grantId: number | null;
  readonly byId: number;
  readonly note: string;
  readonly readAt: number | null;
}

interface Row {
  key: string;
  person_id: number;
  at: number;
  kind: Notice['kind'];
  collection_id: number | null;
  owner_id: number | null;
  grant_id: number | null;
  by_id: number;
  note: string;
  read_at: number | null;
}

export function insertNotice(db: Connection, notice: Omit<Notice, 'readAt'>): void {
  db.run(
    'INSERT INTO notice (key, person_id, at, kind, collection_id, owner_id, grant_id, by_id, note) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    notice.key,
    notice.personId,
    notice.at,
    notice.kind,
    notice.collectionId,
    notice.ownerId,
    notice.grantId,
    notice.byId,
    notice.note,
  );
}

/** What else is told where it is asked: a calendar shown in the same act as its asker's ask. It is one message, which reads both ways. */
const BY_ITSELF = `person_id = @personId AND NOT EXISTS (SELECT 1 FROM ask
  WHERE ask.to_id = notice.person_id AND ask.gave = notice.grant_id AND ask.state <> 'takenBack')`;

/** What a person was told, the newest first, but for what an access request to them says with it. */
export function noticesTo(db: Connection, personId: number, most: number): Notice[] {
  return db
    .all<Row>(`SELECT * FROM notice WHERE ${BY_ITSELF} ORDER BY id DESC LIMIT @most`, { personId, most })
    .map((r) => ({
      key: r.key,
      personId: r.person_id,
      at: r.at,
      kind: r.kind,
      collectionId: r.collection_id,
      ownerId: r.owner_id,
      grantId: r.grant_id,
      byId: r.by_id,
      note: r.note,
      readAt: r.read_at,
    }));
}

/** How many of those a person hasn't opened. */
export function unreadNotices(db: Connection, personId: number): number {
  return (
    db.get<{ n: number }>(`SELECT count(*) AS n FROM notice WHERE ${BY_ITSELF} AND read_at IS NULL`, { personId })?.n ??
    0
  );
}

/** Marks all that a person was told as opened, with what an access request says with it. */
export function markNoticesRead(db: Connection, personId: number, at: number): void {
  db.run('UPDATE notice SET read_at = ? WHERE person_id = ? AND read_at IS NULL', at, personId);
}

/** Who was told of a grant: when first, how many, how many of them opened what told them, and when last. */
export interface Told {
  readonly at: number;
  readonly told: number;
  readonly opened: number;
  readonly lastOpened: number | null;
}

/** Who was told of each grant of a calendar, by the grant's row number. */
export function toldOf(db: Connection, collectionId: number): Map<number, Told> {
  return new Map(
    db
      .arrays<[number, number, number, number, number | null]>(
        `SELECT n.grant_id, min(n.at), count(DISTINCT n.person_id),
           count(DISTINCT CASE WHEN n.read_at IS NOT NULL THEN n.person_id END), max(n.read_at)
         FROM notice n JOIN collection c ON c.id = n.collection_id
         WHERE n.collection_id = ? AND n.grant_id IS NOT NULL AND n.person_id <> c.owner_id GROUP BY n.grant_id`,
        collectionId,
      )
      .map(([grant, at, told, opened, lastOpened]) => [grant, { at, told, opened, lastOpened }]),
  );
}

/** Whether the one a grant speaks to was told of it, by whatever way. */
export function wasTold(db: Connection, grantId: number, ownerId: number): boolean {
  return db.get('SELECT 1 FROM notice WHERE grant_id = ? AND person_id <> ? LIMIT 1', grantId, ownerId) !== undefined;
}
