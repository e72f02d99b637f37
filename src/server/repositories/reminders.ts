import type { Connection } from '../db/index.ts';

/** How somebody is reminded of what happens in a calendar: of everything that takes time there, or of one item (`minutes` null: not). */
export interface Reminder {
  readonly personId: number;
  readonly calendarId: number;
  readonly itemId: number | null;
  readonly minutes: number | null;
  readonly byMail: boolean;
}

interface Row {
  person_id: number;
  calendar_id: number;
  item_id: number | null;
  minutes: number | null;
  by_mail: number;
}
const decode = (r: Row): Reminder => ({
  personId: r.person_id,
  calendarId: r.calendar_id,
  itemId: r.item_id,
  minutes: r.minutes,
  byMail: r.by_mail === 1,
});

/** Somebody's wish for a calendar, or for one item of it; `null` where they have none of their own. */
export function reminderOf(
  db: Connection,
  calendarId: number,
  personId: number,
  itemId: number | null,
): Reminder | null {
  const row = db.get<Row>(
    'SELECT * FROM reminder WHERE calendar_id = ? AND person_id = ? AND coalesce(item_id, 0) = ?',
    calendarId,
    personId,
    itemId ?? 0,
  );
  return row ? decode(row) : null;
}

/** Every wish for a calendar as a whole, and those for some of its items. */
export function remindersOn(db: Connection, calendarId: number, itemIds: readonly number[]): Reminder[] {
  return db
    .all<Row>(
      `SELECT * FROM reminder WHERE calendar_id = ? AND (item_id IS NULL OR item_id IN (SELECT value FROM json_each(?)))
       ORDER BY id LIMIT 2000`,
      calendarId,
      JSON.stringify(itemIds),
    )
    .map(decode);
}

/** How many items of a calendar somebody has a wish of their own for. */
export const countReminders = (db: Connection, calendarId: number, personId: number): number =>
  db.get<{ n: number }>(
    'SELECT count(*) AS n FROM reminder WHERE calendar_id = ? AND person_id = ? AND item_id IS NOT NULL',
    calendarId,
    personId,
  )?.n ?? 0;

/** Keeps a wish in the place of the one before; `undefined` minutes drop it. */
export function saveReminder(
  db: Connection,
  r: Omit<Reminder, 'minutes'> & { readonly minutes: number | null | undefined },
): void {
  db.run(
    'DELETE FROM reminder WHERE calendar_id = ? AND person_id = ? AND coalesce(item_id, 0) = ?',
    r.calendarId,
    r.personId,
    r.itemId ?? 0,
  );
  if (r.minutes === undefined) return;
  db.run(
    'INSERT INTO reminder (person_id, calendar_id, item_id, minutes, by_mail) VALUES (?, ?, ?, ?, ?)',
    r.personId,
    r.calendarId,
    r.itemId,
    r.minutes,
    Number(r.byMail),
  );
}

/** Which calendars are to be looked at for which time before: as many as `most`, after a pair. */
export const reminderTimes = (
  db: Connection,
  after: readonly [calendar: number, minutes: number],
  most: number,
): [calendar: number, minutes: number][] =>
  db.arrays(
    `SELECT DISTINCT calendar_id, minutes FROM reminder
     WHERE minutes IS NOT NULL AND (calendar_id, minutes) > (?, ?) ORDER BY calendar_id, minutes LIMIT ?`,
    after[0],
    after[1],
    most,
  );

/** Somebody was reminded of an occurrence, and hasn't said yet that it is done. */
export interface Reminded {
  readonly key: string;
  readonly personId: number;
  readonly itemId: number;
  readonly start: number;
}

/** Notes that somebody is reminded of an occurrence; answers whether they hadn't been. */
export const insertReminded = (db: Connection, r: Reminded, now: number): boolean =>
  db.changes(
    'INSERT OR IGNORE INTO reminded (key, person_id, item_id, start, shown_from) VALUES (?, ?, ?, ?, ?)',
    r.key,
    r.personId,
    r.itemId,
    r.start,
    now,
  ) === 1;

/** What somebody is being reminded of now: what began no longer ago than `since`, the next first. */
export const remindedOpen = (db: Connection, personId: number, now: number, since: number, most: number): Reminded[] =>
  db
    .all<{ key: string; item_id: number; start: number }>(
      `SELECT key, item_id, start FROM reminded
       WHERE person_id = ? AND done = 0 AND shown_from <= ? AND start >= ? ORDER BY start LIMIT ?`,
      personId,
      now,
      since,
      most,
    )
    .map((r) => ({ key: r.key, personId, itemId: r.item_id, start: r.start }));

/** Ends a reminder, or puts it off until an instant; answers whether it is one of theirs. */
export const settleReminded = (db: Connection, personId: number, key: string, until: number | null): boolean =>
  (until === null
    ? db.changes('UPDATE reminded SET done = 1 WHERE person_id = ? AND key = ?', personId, key)
    : db.changes('UPDATE reminded SET shown_from = ? WHERE person_id = ? AND key = ?', until, personId, key)) === 1;

/** Forgets what began long ago. */
export const forgetReminded = (db: Connection, before: number): void => {
  db.run('DELETE FROM reminded WHERE start < ?', before);
};

/** One reminder of somebody's that isn't done. */
export function remindedByKey(db: Connection, personId: number, key: string): Reminded | null {
  const row = db.get<{ item_id: number; start: number }>(
    'SELECT item_id, start FROM reminded WHERE person_id = ? AND key = ? AND done = 0',
    personId,
    key,
  );
  return row ? { key, personId, itemId: row.item_id, start: row.start } : null;
}
