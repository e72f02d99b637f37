import type { Language } from '@/messages/languages.ts';
import type { Connection } from '../db/index.ts';

/** A link to a calendar, by the name its maker gave it. Whether it still opens anything is said by its grants. */
export interface Link {
  readonly id: number;
  readonly key: string;
  readonly collectionId: number;
  readonly name: string;
  readonly madeBy: number;
  readonly madeAt: number;
  readonly lastUsed: number | null;
  /** How many days ahead it shows. */
  readonly ahead: number;
  /** In which language and zone; `null`: as whoever reads it does. */
  readonly language: Language | null;
  readonly zone: string | null;
  /** The website on which its page may stand in a frame, as an origin. */
  readonly framedBy: string | null;
  /** How a time is booked, in its owner's words. */
  readonly booking: string | null;
}

interface Row {
  id: number;
  key: string;
  collection_id: number;
  name: string;
  made_by: number;
  made_at: number;
  last_used: number | null;
  ahead: number;
  language: Language | null;
  zone: string | null;
  framed_by: string | null;
  booking: string | null;
}

/** A link by its key; `null` where there is none. */
export function linkByKey(db: Connection, key: string): Link | null {
  const r = db.get<Row>(
    'SELECT id, key, collection_id, name, made_by, made_at, last_used, ahead, language, zone, framed_by, booking FROM link WHERE key = ?',
    key,
  );
  return r
    ? {
        id: r.id,
        key: r.key,
        collectionId: r.collection_id,
        name: r.name,
        madeBy: r.made_by,
        madeAt: r.made_at,
        lastUsed: r.last_used,
        ahead: r.ahead,
        language: r.language,
        zone: r.zone,
        framedBy: r.framed_by,
        booking: r.booking,
      }
    : null;
}

type Shown = Pick<Link, 'ahead' | 'language' | 'zone' | 'framedBy' | 'booking'>;

export function insertLink(db: Connection, link: Omit<Link, 'id' | 'lastUsed' | keyof Shown>): void {
  db.run(
    'INSERT INTO link (key, collection_id, name, made_by, made_at) VALUES (?, ?, ?, ?, ?)',
    link.key,
    link.collectionId,
    link.name,
    link.madeBy,
    link.madeAt,
  );
}

/** Notes that a link was opened. */
export function noteLinkUse(db: Connection, key: string, at: number): void {
  db.run('UPDATE link SET last_used = ? WHERE key = ?', at, key);
}

/** Sets how a link shows what it shows. */
export function saveLinkShown(db: Connection, key: string, { ahead, language, zone, framedBy, booking }: Shown): void {
  db.run(
    'UPDATE link SET ahead = ?, language = ?, zone = ?, framed_by = ?, booking = ? WHERE key = ?',
    ahead,
    language,
    zone,
    framedBy,
    booking,
    key,
  );
}
