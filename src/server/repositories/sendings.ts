import type { Connection } from '../db/index.ts';

/** What is to be said of a meeting. `due` (epoch milliseconds) is when it leaves; `null` where it waits for somebody who may speak. */
export interface Sending {
  readonly id: number;
  readonly key: string;
  readonly meetingId: number;
  readonly calendarId: number;
  readonly act: 'tell' | 'off' | 'nudge' | 'declineCounter' | 'answer' | 'propose' | 'refresh' | 'handover';
  readonly body: unknown;
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
  act: r.act,
  body: JSON.parse(r.body),
  actorId: r.actor_id,
  at: r.at,
  due: r.due,
  state: r.state,
  undoKey: r.undo_key,
});

export function insertSending(db: Connection, s: Omit<Sending, 'id' | 'state'>): Sending {
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
