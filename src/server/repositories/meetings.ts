import type { Copy, Cover, Invited, Meeting } from '@/core/meetings/index.ts';
import type { Connection } from '../db/index.ts';

interface Held {
  readonly id: number;
  readonly calendarId: number;
  readonly itemId: number | null;
  readonly uid: string;
  /** Which occurrence of a series it is; `null` for the whole of one, and for a single meeting. */
  readonly recurrence: string | null;
}

/** A meeting the calendar's owner calls. `state` is what was said of it so far, `wanted` whom they would have there, where that is not who was asked. */
export interface OrganiserMeeting extends Held {
  readonly part: 'organiser';
  readonly state: Meeting | null;
  readonly wanted: readonly Invited[] | null;
  /** What is said in the place of its own words. */
  readonly cover?: Cover | null;
}

/** A meeting the calendar's owner was asked to, as far as it was heard of. */
export interface AttendeeMeeting extends Held {
  readonly part: 'attendee';
  readonly state: Copy;
}

export type StoredMeeting = OrganiserMeeting | AttendeeMeeting;

interface Row {
  id: number;
  calendar_id: number;
  item_id: number | null;
  uid: string;
  recurrence: string | null;
  part: StoredMeeting['part'];
  state: string | null;
  wanted: string | null;
  cover: string | null;
}

function decode(r: Row): StoredMeeting {
  const held = { id: r.id, calendarId: r.calendar_id, itemId: r.item_id, uid: r.uid, recurrence: r.recurrence };
  if (r.part === 'attendee') return { ...held, part: 'attendee', state: JSON.parse(r.state ?? 'null') };
  return {
    ...held,
    part: 'organiser',
    state: r.state === null ? null : JSON.parse(r.state),
    wanted: r.wanted === null ? null : JSON.parse(r.wanted),
    cover: r.cover === null ? null : JSON.parse(r.cover),
  };
}

export function meetingById(db: Connection, id: number): StoredMeeting | null {
  const row = db.get<Row>('SELECT * FROM meeting WHERE id = ?', id);
  return row ? decode(row) : null;
}

export function meetingOfItem(db: Connection, itemId: number): StoredMeeting | null {
  const row = db.get<Row>('SELECT * FROM meeting WHERE item_id = ?', itemId);
  return row ? decode(row) : null;
}

export function meetingByUid(
  db: Connection,
  calendarId: number,
  uid: string,
  recurrence: string | null,
): StoredMeeting | null {
  const row = db.get<Row>(
    `SELECT * FROM meeting WHERE calendar_id = ? AND uid = ? AND coalesce(recurrence, '') = ?`,
    calendarId,
    uid,
    recurrence ?? '',
  );
  return row ? decode(row) : null;
}

/** All that is held of one UID in a calendar: the whole first, then its occurrences. */
export function meetingsByUid(db: Connection, calendarId: number, uid: string): StoredMeeting[] {
  return db
    .all<Row>(
      `SELECT * FROM meeting WHERE calendar_id = ? AND uid = ? ORDER BY coalesce(recurrence, '') LIMIT 2000`,
      calendarId,
      uid,
    )
    .map(decode);
}

export function insertMeeting(
  db: Connection,
  m: Omit<OrganiserMeeting, 'id'> | Omit<AttendeeMeeting, 'id'>,
  at: number,
): StoredMeeting {
  const id = db.run(
    `INSERT INTO meeting (calendar_id, item_id, uid, recurrence, part, state, wanted, changed_at, cover)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    m.calendarId,
    m.itemId,
    m.uid,
    m.recurrence,
    m.part,
    m.state === null ? null : JSON.stringify(m.state),
    m.part === 'organiser' && m.wanted !== null ? JSON.stringify(m.wanted) : null,
    at,
    coverText(m),
  );
  return { ...m, id };
}

const coverText = (m: Omit<OrganiserMeeting, 'id'> | Omit<AttendeeMeeting, 'id'>): string | null =>
  m.part === 'organiser' && m.cover ? JSON.stringify(m.cover) : null;

export function updateMeeting(db: Connection, m: StoredMeeting, at: number): void {
  db.run(
    'UPDATE meeting SET calendar_id = ?, uid = ?, item_id = ?, part = ?, state = ?, wanted = ?, changed_at = ?, cover = ? WHERE id = ?',
    m.calendarId,
    m.uid,
    m.itemId,
    m.part,
    m.state === null ? null : JSON.stringify(m.state),
    m.part === 'organiser' && m.wanted !== null ? JSON.stringify(m.wanted) : null,
    at,
    coverText(m),
    m.id,
  );
}
