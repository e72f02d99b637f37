import type { Connection } from '../db/index.ts';
import type { ItemRow } from './item-columns.ts';

/** What somebody said of a row of the Desk, or did with it. `versions` are those of the facts that caused it, by id, as they were then. */
export interface DeskWordRow {
  readonly id: number;
  readonly ownerId: number;
  readonly cause: string;
  readonly byId: number;
  readonly at: number;
  readonly what: 'later' | 'left' | 'passed' | 'done';
  readonly until: number | null;
  readonly versions: Readonly<Record<string, number>>;
  readonly toId: number | null;
  readonly line: string;
  readonly act: string | null;
}

type Row = Omit<DeskWordRow, 'versions'> & { versions: string };

const COLUMNS = `id, owner_id AS ownerId, cause, by_id AS byId, at, what, until, versions, to_id AS toId, line, act`;
const decode = (row: Row): DeskWordRow => ({ ...row, versions: JSON.parse(row.versions) });

/** Words that are kept of one person's rows: the oldest go. */
const MOST_WORDS = 2000;

/** What was said of somebody's rows, the oldest first. */
export const deskWords = (db: Connection, ownerId: number): DeskWordRow[] =>
  db
    .all<Row>(`SELECT ${COLUMNS} FROM desk_word WHERE owner_id = ? AND what <> 'done' ORDER BY id`, ownerId)
    .map(decode);

export function insertDeskWord(db: Connection, word: Omit<DeskWordRow, 'id'>): number {
  const id = db.run(
    `INSERT INTO desk_word (owner_id, cause, by_id, at, what, until, versions, to_id, line, act)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    word.ownerId,
    word.cause,
    word.byId,
    word.at,
    word.what,
    word.until,
    JSON.stringify(word.versions),
    word.toId,
    word.line,
    word.act,
  );
  db.run(
    'DELETE FROM desk_word WHERE owner_id = ? AND id <= (SELECT id FROM desk_word WHERE owner_id = ? ORDER BY id DESC LIMIT 1 OFFSET ?)',
    word.ownerId,
    word.ownerId,
    MOST_WORDS,
  );
  return id;
}

/** What was said of and done with some people's rows, the latest first: at most `most`. */
export const latestDeskWords = (db: Connection, ownerIds: readonly number[], most: number): DeskWordRow[] =>
  db
    .all<Row>(
      `SELECT ${COLUMNS} FROM desk_word WHERE owner_id IN (SELECT value FROM json_each(?)) ORDER BY id DESC LIMIT ?`,
      JSON.stringify(ownerIds),
      most,
    )
    .map(decode);

export function dropDeskWord(db: Connection, id: number): void {
  db.run('DELETE FROM desk_word WHERE id = ?', id);
}

/** How much each kind counts more or less for somebody, and the addresses of those who go first for them. */
export interface DeskPreference {
  readonly shifts: Readonly<Record<string, number>>;
  readonly first: readonly string[];
  readonly version: number;
}

export function deskPreferenceOf(db: Connection, personId: number): DeskPreference {
  const row = db.get<{ shifts: string; first: string; version: number }>(
    'SELECT shifts, first, version FROM desk_preference WHERE person_id = ?',
    personId,
  );
  return row
    ? { shifts: JSON.parse(row.shifts), first: JSON.parse(row.first), version: row.version }
    : { shifts: {}, first: [], version: 0 };
}

export function putDeskPreference(db: Connection, personId: number, p: DeskPreference, by: number, at: number): void {
  db.run(
    `INSERT INTO desk_preference (person_id, shifts, first, version, changed_by, changed_at) VALUES (?, ?, ?, ?, ?, ?)
     ON CONFLICT (person_id) DO UPDATE SET shifts = excluded.shifts, first = excluded.first, version = excluded.version,
       changed_by = excluded.changed_by, changed_at = excluded.changed_at`,
    personId,
    JSON.stringify(p.shifts),
    JSON.stringify(p.first),
    p.version,
    by,
    at,
  );
}

/** Of whom it was said that a meeting takes place without them, by item: addresses in small letters. */
export function withoutOf(db: Connection, itemIds: readonly number[]): Map<number, Set<string>> {
  const found = new Map<number, Set<string>>();
  for (const [item, address] of db.arrays<[number, string]>(
    'SELECT item_id, address FROM meeting_without WHERE item_id IN (SELECT value FROM json_each(?))',
    JSON.stringify(itemIds),
  ))
    found.set(item, (found.get(item) ?? new Set()).add(address));
  return found;
}

export function sayWithout(db: Connection, itemId: number, address: string, by: number, at: number): void {
  db.run(
    'INSERT INTO meeting_without (item_id, address, said_by, at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING',
    itemId,
    address.toLowerCase(),
    by,
    at,
  );
}

/** Takes back what was said at an instant or later: that a meeting takes place without some. */
export function unsayWithout(db: Connection, itemKey: string, since: number): void {
  db.run('DELETE FROM meeting_without WHERE at >= ? AND item_id = (SELECT id FROM item WHERE key = ?)', since, itemKey);
}

/** What a Desk needs of an item beside its view. */
export interface DeskItemRow {
  readonly id: number;
  readonly key: string;
  readonly uid: string;
  readonly version: number;
  readonly holdSet: number | null;
  readonly lapsesAt: number | null;
  readonly repeats: boolean;
  readonly createdAt: number;
  readonly ownerAnswer: 'needs-action' | 'accepted' | 'tentative' | 'declined' | null;
  readonly cancelled: boolean;
}

/** The same out of a row that was read of it. */
export const deskItemOf = (row: Pick<ItemRow, (typeof DESK_COLUMNS)[number]>): DeskItemRow => ({
  id: row.id,
  key: row.key,
  uid: row.uid,
  version: row.version,
  holdSet: row.hold_set,
  lapsesAt: row.lapses_at,
  repeats: row.rule !== null || row.added !== '[]',
  createdAt: row.created_at,
  ownerAnswer: row.owner_answer as DeskItemRow['ownerAnswer'],
  cancelled: row.cancelled === 1,
});

const DESK_COLUMNS = [
  'id',
  'key',
  'uid',
  'version',
  'hold_set',
  'lapses_at',
  'rule',
  'added',
  'created_at',
  'owner_answer',
  'cancelled',
] as const;

/** Items of a calendar by their row numbers. */
export const deskItems = (db: Connection, calendarId: number, ids: readonly number[]): DeskItemRow[] =>
  db
    .all<ItemRow>(
      `SELECT ${DESK_COLUMNS.map((name) => `i.${name}`).join(', ')} FROM json_each(?) v CROSS JOIN item i ON i.id = v.value
       WHERE i.calendar_id = ? AND i.removed_at IS NULL`,
      JSON.stringify(ids),
      calendarId,
    )
    .map(deskItemOf);

/** Items of a calendar that begin after an instant, or repeat, whose meeting somebody declined, or proposed another time for: at most `most`. */
export const itemsInDoubt = (db: Connection, calendarId: number, after: number, most: number): number[] =>
  db
    .arrays<[number]>(
      `SELECT i.id FROM meeting m JOIN item i ON i.id = m.item_id
       WHERE m.calendar_id = ? AND m.part = 'organiser' AND i.removed_at IS NULL AND (i.start > ? OR i.rule IS NOT NULL)
         AND (instr(m.state, '"answer":"declined"') > 0 OR instr(m.state, '"counters":[{') > 0)
       ORDER BY i.start LIMIT ?`,
      calendarId,
      after,
      most,
    )
    .map(([id]) => id);

/** When each address was last asked to a meeting: by what was sent of it. */
export function invitedAt(db: Connection, meetingId: number): Map<string, number> {
  const instants = new Map<string, number>();
  for (const [at, recipients] of db.arrays<[number, string]>(
    `SELECT m.at, m.recipients FROM message m JOIN collection c ON c.id = m.collection_id AND c.name = 'Sent'
     WHERE m.meeting_id = ? AND m.kind IN ('invitation', 'change') ORDER BY m.id DESC LIMIT 50`,
    meetingId,
  ))
    for (const { address } of JSON.parse(recipients) as { address: string }[]) {
      const key = address.toLowerCase();
      if (!instants.has(key)) instants.set(key, at);
    }
  return instants;
}
