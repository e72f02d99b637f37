import type { Answer, Attendee, Importance, Kind, Party, Status, Visibility } from '@/core/calendar/index.ts';
import type { KeptLine } from '@/core/formats/index.ts';
import { isDefined } from '@/core/time/index.ts';
import type { Connection } from '../db/index.ts';
import { knowZone } from './zone-definitions.ts';

/** An item as it is kept. `start` and `end` are epoch milliseconds, or day starts as if UTC where `allDay`. */
export interface StoredItem {
  readonly id: number;
  readonly key: string;
  readonly calendarId: number;
  readonly uid: string;
  /** The series this item replaces one happening of, and that happening's wall-clock text. */
  readonly seriesId: number | null;
  readonly recurrence: string | null;
  readonly start: number;
  readonly end: number;
  readonly allDay: boolean;
  readonly zone: string;
  /** The start on its zone's clock, where the clocks leave that out: a series goes on from there, not from where it was moved to. */
  readonly wall: number | null;
  /** How many whole days of the clock its length holds; the rest of it is exact. */
  readonly days: number;
  readonly rule: string | null;
  readonly added: readonly string[];
  readonly left: readonly string[];
  readonly title: string;
  readonly kind: Kind;
  readonly place: string | null;
  readonly notes: string | null;
  readonly link: string | null;
  readonly categories: readonly string[];
  readonly importance: Importance;
  readonly shows: Status;
  readonly visibility: Visibility;
  readonly cancelled: boolean;
  readonly ownerAnswer: Answer | null;
  readonly organiser: Party | null;
  readonly attendees: readonly Attendee[];
  readonly ownerInvited: boolean;
  readonly briefing: string | null;
  readonly sequence: number;
  readonly version: number;
  readonly createdBy: number;
  readonly createdFor: number;
  readonly createdAt: number;
  readonly changedBy: number;
  readonly changedFor: number;
  readonly changedAt: number;
  readonly removedAt: number | null;
  /** What a calendar file said of it that isn't modelled. */
  readonly kept: readonly KeptLine[];
  /** The act that brought it in with a file. */
  readonly batch: number | null;
}

/** What an item has that wasn't brought in by a file. */
export const MADE_HERE = { wall: null, days: 0, kept: [], batch: null } as const;

/** An item that stands beside the calendar while the file it comes with is brought in. */
export const COMING = -1;

/** An item row as SQLite gives it. */
export interface ItemRow {
  id: number;
  key: string;
  calendar_id: number;
  uid: string;
  series_id: number | null;
  recurrence: string | null;
  start: number;
  finish: number;
  wall: number | null;
  days: number;
  all_day: 0 | 1;
  zone: string;
  rule: string | null;
  added: string;
  left_out: string;
  title: string;
  kind: Kind;
  place: string | null;
  notes: string | null;
  link: string | null;
  categories: string;
  importance: Importance;
  shows: Status;
  visibility: Visibility;
  cancelled: 0 | 1;
  owner_answer: Answer | null;
  organiser: string | null;
  attendees: string;
  parties: string;
  owner_invited: 0 | 1;
  briefing: string | null;
  sequence: number;
  version: number;
  created_by: number;
  created_for: number;
  created_at: number;
  changed_by: number;
  changed_for: number;
  changed_at: number;
  removed_at: number | null;
  kept: string;
  batch: number | null;
}

/** A JSON list of a column; the empty one, which is nearly every one, without parsing. */
export const list = <T>(text: string): T[] => (text === '[]' ? [] : JSON.parse(text));

/** Whether an address stands in a row's `parties`. */
export const namesParty = (parties: string, address: string): boolean =>
  parties !== '' && parties.includes(`\n${address}\n`);

function decode(db: Connection, row: ItemRow): StoredItem {
  if (row.zone.startsWith('~') && !isDefined(row.zone)) knowZone(db, row.zone);
  return {
    id: row.id,
    key: row.key,
    calendarId: row.calendar_id,
    uid: row.uid,
    seriesId: row.series_id,
    recurrence: row.recurrence,
    start: row.start,
    end: row.finish,
    wall: row.wall,
    days: row.days,
    allDay: row.all_day === 1,
    zone: row.zone,
    rule: row.rule,
    added: list(row.added),
    left: list(row.left_out),
    title: row.title,
    kind: row.kind,
    place: row.place,
    notes: row.notes,
    link: row.link,
    categories: list(row.categories),
    importance: row.importance,
    shows: row.shows,
    visibility: row.visibility,
    cancelled: row.cancelled === 1,
    ownerAnswer: row.owner_answer,
    organiser: row.organiser === null ? null : JSON.parse(row.organiser),
    attendees: list(row.attendees),
    ownerInvited: row.owner_invited === 1,
    briefing: row.briefing,
    sequence: row.sequence,
    version: row.version,
    createdBy: row.created_by,
    createdFor: row.created_for,
    createdAt: row.created_at,
    changedBy: row.changed_by,
    changedFor: row.changed_for,
    changedAt: row.changed_at,
    removedAt: row.removed_at,
    kept: list(row.kept),
    batch: row.batch,
  };
}

const WRITTEN = [
  'key',
  'calendar_id',
  'uid',
  'series_id',
  'recurrence',
  'start',
  'finish',
  'wall',
  'days',
  'all_day',
  'zone',
  'rule',
  'added',
  'left_out',
  'title',
  'kind',
  'place',
  'notes',
  'link',
  'categories',
  'importance',
  'shows',
  'visibility',
  'cancelled',
  'owner_answer',
  'organiser',
  'attendees',
  'parties',
  'owner_invited',
  'briefing',
  'sequence',
  'version',
  'created_by',
  'created_for',
  'created_at',
  'changed_by',
  'changed_for',
  'changed_at',
  'removed_at',
  'kept',
  'batch',
] as const satisfies readonly Exclude<keyof ItemRow, 'id'>[];

/** An item's columns. */
export function encode(item: Omit<StoredItem, 'id'>): Pick<ItemRow, (typeof WRITTEN)[number]> {
  const addresses = [item.organiser?.address, ...item.attendees.map((a) => a.address)].filter(Boolean);
  return {
    key: item.key,
    calendar_id: item.calendarId,
    uid: item.uid,
    series_id: item.seriesId,
    recurrence: item.recurrence,
    start: item.start,
    finish: item.end,
    wall: item.wall ?? null,
    days: item.days ?? 0,
    all_day: item.allDay ? 1 : 0,
    zone: item.zone,
    rule: item.rule,
    added: JSON.stringify(item.added),
    left_out: JSON.stringify(item.left),
    title: item.title,
    kind: item.kind,
    place: item.place,
    notes: item.notes,
    link: item.link,
    categories: JSON.stringify(item.categories),
    importance: item.importance,
    shows: item.shows,
    visibility: item.visibility,
    cancelled: item.cancelled ? 1 : 0,
    owner_answer: item.ownerAnswer,
    organiser: item.organiser === null ? null : JSON.stringify(item.organiser),
    attendees: JSON.stringify(item.attendees),
    parties: addresses.length === 0 ? '' : `\n${addresses.join('\n')}\n`,
    owner_invited: item.ownerInvited ? 1 : 0,
    briefing: item.briefing,
    sequence: item.sequence,
    version: item.version,
    created_by: item.createdBy,
    created_for: item.createdFor,
    created_at: item.createdAt,
    changed_by: item.changedBy,
    changed_for: item.changedFor,
    changed_at: item.changedAt,
    removed_at: item.removedAt,
    // Entries of the trail from before these were kept don't have them.
    kept: JSON.stringify(item.kept ?? []),
    batch: item.batch ?? null,
  };
}

export function itemByKey(db: Connection, key: string): StoredItem | null {
  const row = db.get<ItemRow>('SELECT * FROM item WHERE key = ?', key);
  return row ? decode(db, row) : null;
}

export function itemById(db: Connection, id: number): StoredItem | null {
  const row = db.get<ItemRow>('SELECT * FROM item WHERE id = ?', id);
  return row ? decode(db, row) : null;
}

/** Items of a calendar with a UID, removed ones left out. */
export function itemsByUid(db: Connection, calendarId: number, uid: string): StoredItem[] {
  return db
    .all<ItemRow>('SELECT * FROM item WHERE calendar_id = ? AND uid = ? AND removed_at IS NULL', calendarId, uid)
    .map((row) => decode(db, row));
}

/** The items that stand for single happenings of a series. */
export function replacementsOf(db: Connection, seriesId: number): StoredItem[] {
  return db
    .all<ItemRow>('SELECT * FROM item WHERE series_id = ? AND removed_at IS NULL ORDER BY recurrence', seriesId)
    .map((row) => decode(db, row));
}

/** Every item of a calendar, series first. */
export function allItems(db: Connection, calendarId: number): StoredItem[] {
  return db
    .all<ItemRow>(
      'SELECT * FROM item WHERE calendar_id = ? AND removed_at IS NULL ORDER BY series_id IS NOT NULL, start, id',
      calendarId,
    )
    .map((row) => decode(db, row));
}

const REPEATS = `(rule IS NOT NULL OR added <> '[]') AND removed_at IS NULL`;

/** Row numbers of the items of a calendar that happen more than once, each with its version; at most `most`. */
export function repeatingIds(db: Connection, calendarId: number, most = 1_000_000): [id: number, version: number][] {
  return db.arrays(
    `SELECT id, version FROM item WHERE calendar_id = ? AND ${REPEATS} ORDER BY id LIMIT ?`,
    calendarId,
    most,
  );
}

/** How many items stand in a calendar, and how many a person has added since an instant. */
export function countItems(db: Connection, calendarId: number): number {
  return (
    db.get<{ n: number }>('SELECT count(*) AS n FROM item WHERE calendar_id = ? AND removed_at IS NULL', calendarId)
      ?.n ?? 0
  );
}
export function countAddedBy(db: Connection, personId: number, since: number): number {
  return (
    db.get<{ n: number }>('SELECT count(*) AS n FROM item WHERE created_by = ? AND created_at >= ?', personId, since)
      ?.n ?? 0
  );
}

/** The items that an act brought in, in the order they came. */
export function itemsOfBatch(db: Connection, batch: number): StoredItem[] {
  return db.all<ItemRow>('SELECT * FROM item WHERE batch = ? ORDER BY id', batch).map((row) => decode(db, row));
}

const INSERT = `INSERT INTO item (${WRITTEN.join(', ')}) VALUES (${WRITTEN.map(() => '?').join(', ')})`;
const UPDATE = `UPDATE item SET ${WRITTEN.map((c) => `${c} = ?`).join(', ')} WHERE id = ?`;

export function insertItem(db: Connection, item: Omit<StoredItem, 'id'>): StoredItem {
  const row = encode(item);
  return { ...item, id: db.run(INSERT, ...WRITTEN.map((c) => row[c])) };
}

export function updateItem(db: Connection, item: StoredItem): void {
  const row = encode(item);
  db.run(UPDATE, ...WRITTEN.map((c) => row[c]), item.id);
}
