import type { Invited, MeetingTime } from '@/core/meetings/index.ts';
import type { Connection } from '../db/index.ts';
import type { StoredItem } from './stored-item.ts';

/** When an item is, as far as a move between calendars changes it. */
export type ItemTime = Pick<StoredItem, 'start' | 'end' | 'allDay' | 'zone' | 'wall' | 'days'>;

/** Whether all shall hear of a change, and whom the sender wanted there before, for taking it back. */
interface Told {
  readonly tellAll: boolean;
  readonly wantedBefore: readonly Invited[] | null;
}

/** What each act carries until it leaves. */
export interface SendingBodies {
  readonly tell: Told;
  readonly off: Told;
  /** Whom it reminds; `null` for everybody who hasn't answered. */
  readonly nudge: { readonly whom: readonly string[] | null };
  readonly declineCounter: { readonly attendee: string; readonly comment: string | null };
  readonly answer: { readonly answer: 'accepted' | 'declined' | 'tentative'; readonly comment: string | null };
  readonly propose: { readonly time: MeetingTime; readonly comment: string | null };
  readonly refresh: unknown;
  /** Where the meeting was, by which UID it was known, and when it was, where it got another time with it. */
  readonly handover: { readonly calendar: number; readonly uid: string; readonly was: ItemTime | null };
}
type Said = { [A in keyof SendingBodies]: { readonly act: A; readonly body: SendingBodies[A] } }[keyof SendingBodies];

/** What is to be said of a meeting. `due` (epoch milliseconds) is when it leaves; `null` where it waits for somebody who may speak. */
export type Sending = Said & SendingRest;
interface SendingRest {
  readonly id: number;
  readonly key: string;
  readonly meetingId: number;
  readonly calendarId: number;
  readonly actorId: number;
  readonly at: number;
  readonly due: number | null;
  readonly state: 'waiting' | 'gone' | 'back';
  readonly undoKey: string | null;
}

interface Row {
  id: number;
  key: string;
  meeting_id: number;
  calendar_id: number;
  act: Sending['act'];
  body: string;
  actor_id: number;
  at: number;
  due: number | null;
  state: Sending['state'];
  undo_key: string | null;
}

const decode = (r: Row): Sending => ({
  id: r.id,
  key: r.key,
  meetingId: r.meeting_id,
  calendarId: r.calendar_id,
  ...({ act: r.act, body: JSON.parse(r.body) } as Said),
  actorId: r.actor_id,
  at: r.at,
  due: r.due,
  state: r.state,
  undoKey: r.undo_key,
});

export function insertSending(db: Connection, s: Said & Omit<SendingRest, 'id' | 'state'>): Sending {
  const id = db.run(
    `INSERT INTO sending (key, meeting_id, calendar_id, act, body, actor_id, at, due, undo_key)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    s.key,
    s.meetingId,
    s.calendarId,
    s.act,
    JSON.stringify(s.body),
    s.actorId,
    s.at,
    s.due,
    s.undoKey,
  );
  return { ...s, id, state: 'waiting' };
}

export function sendingByKey(db: Connection, key: string): Sending | null {
  const row = db.get<Row>('SELECT * FROM sending WHERE key = ?', key);
  return row ? decode(row) : null;
}

/** What waits to be said of a meeting, in the order it was decided. */
export function sendingsWaiting(db: Connection, meetingId: number): Sending[] {
  return db
    .all<Row>(`SELECT * FROM sending WHERE meeting_id = ? AND state = 'waiting' ORDER BY id LIMIT 100`, meetingId)
    .map(decode);
}

/** What waits on a calendar, in the order it was decided: at most `most`. */
export function sendingsOn(db: Connection, calendarId: number, most: number): Sending[] {
  return db
    .all<Row>(`SELECT * FROM sending WHERE state = 'waiting' AND calendar_id = ? ORDER BY id LIMIT ?`, calendarId, most)
    .map(decode);
}

/** What is due by an instant, in the order it falls due: by the index of what waits, however much has gone. */
export function sendingsDue(db: Connection, now: number, most: number): Sending[] {
  return db
    .all<Row>(`SELECT * FROM sending WHERE state = 'waiting' AND due <= ? ORDER BY due, id LIMIT ?`, now, most)
    .map(decode);
}

/** Ends the waiting of what is to be said: it is gone, or was taken back. Answers whether it was waiting. */
export const endSending = (db: Connection, id: number, state: 'gone' | 'back'): boolean =>
  db.changes(`UPDATE sending SET state = ? WHERE id = ? AND state = 'waiting'`, state, id) === 1;

/** Who says it, with what, and when it leaves. */
export function renewSending(
  db: Connection,
  s: Pick<Sending, 'id' | 'body' | 'actorId' | 'at' | 'due' | 'undoKey'>,
): void {
  db.run(
    'UPDATE sending SET body = ?, actor_id = ?, at = ?, due = ?, undo_key = ? WHERE id = ?',
    JSON.stringify(s.body),
    s.actorId,
    s.at,
    s.due,
    s.undoKey,
    s.id,
  );
}

/** What was to be said for a write, by the entry of the trail that undoes it: of each meeting the latest. */
export function sendingsByUndo(db: Connection, undoKey: string): Sending[] {
  const all = db.all<Row>('SELECT * FROM sending WHERE undo_key = ? ORDER BY id LIMIT 500', undoKey).map(decode);
  return [...new Map(all.map((s) => [s.meetingId, s])).values()];
}

/** What waits to be said of a meeting goes with it into another calendar. */
export function moveSendings(db: Connection, meetingId: number, calendarId: number): void {
  db.run(`UPDATE sending SET calendar_id = ? WHERE meeting_id = ? AND state = 'waiting'`, calendarId, meetingId);
}
