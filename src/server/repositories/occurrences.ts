import type { Connection } from '../db/index.ts';
import { COLUMNS, type OccurrenceRow, ROW, type Width } from './occurrence-row.ts';

/** The longest item in the short index; reading a range looks back exactly this far. */
const SHORT = 26 * 3_600_000;
/** All-day items stand by date; no zone's day lies further from UTC's than this. */
const DATE_SLACK = 14 * 3_600_000;

export interface IndexedOccurrence {
  readonly start: number;
  readonly end: number;
}

/** Whether an occurrence stands in the index of short ones, or in that of whole days and long ones. */
const isLong = (allDay: boolean, h: IndexedOccurrence): boolean => allDay || h.end - h.start > SHORT;

/** Replaces all that the index holds of an item. Call it in the transaction that writes the item. */
export function reindex(
  db: Connection,
  calendarId: number,
  itemId: number,
  allDay: boolean,
  occurrences: readonly IndexedOccurrence[],
): void {
  for (const table of ['occurrence', 'span']) db.run(`DELETE FROM ${table} WHERE item_id = ?`, itemId);
  addToIndex(db, calendarId, itemId, allDay, occurrences);
}

/** Adds occurrences of an item to the index; those that are there already stay. */
export function addToIndex(
  db: Connection,
  calendarId: number,
  itemId: number,
  allDay: boolean,
  occurrences: readonly IndexedOccurrence[],
): void {
  const add = (table: string, list: readonly IndexedOccurrence[]) => {
    if (list.length === 0) return;
    db.run(
      `INSERT OR REPLACE INTO ${table} (calendar_id, start, item_id, finish)
       SELECT ?, json_extract(value, '$[0]'), ?, json_extract(value, '$[1]') FROM json_each(?)`,
      calendarId,
      itemId,
      JSON.stringify(list.map((h) => [h.start, h.end])),
    );
  };
  add(
    'occurrence',
    occurrences.filter((h) => !isLong(allDay, h)),
  );
  add(
    'span',
    occurrences.filter((h) => isLong(allDay, h)),
  );
}

/** Occurrences of an item that is coming in, kept beside the index until all of its file is there. */
export function saveComing(
  db: Connection,
  batch: number,
  itemId: number,
  allDay: boolean,
  occurrences: readonly IndexedOccurrence[],
): void {
  for (const h of occurrences)
    db.run(
      'INSERT OR REPLACE INTO coming (batch, long, start, item_id, finish) VALUES (?, ?, ?, ?, ?)',
      batch,
      Number(isLong(allDay, h)),
      h.start,
      itemId,
      h.end,
    );
}

/** Puts what was kept beside the index into it. */
export function letIn(db: Connection, batch: number, calendarId: number): void {
  for (const [long, table] of ['occurrence', 'span'].entries())
    db.run(
      `INSERT INTO ${table} (calendar_id, start, item_id, finish)
       SELECT ?, start, item_id, finish FROM coming WHERE batch = ? AND long = ?`,
      calendarId,
      batch,
      long,
    );
}

/** Drops some of what was kept beside the index; answers whether there is more. */
export function dropComing(db: Connection, batch: number, most: number): boolean {
  return (
    db.changes(
      `DELETE FROM coming WHERE (batch, long, start, item_id) IN
         (SELECT batch, long, start, item_id FROM coming WHERE batch = ? LIMIT ?)`,
      batch,
      most,
    ) === most
  );
}

/** Drops what the index holds of an item before an instant. */
export function trimIndex(db: Connection, itemId: number, before: number): void {
  for (const table of ['occurrence', 'span'])
    db.run(`DELETE FROM ${table} WHERE item_id = ? AND start < ?`, itemId, before);
}

/** Takes all that the index holds of a batch's items out of it. */
export function unindexBatch(db: Connection, batch: number): void {
  for (const table of ['occurrence', 'span'])
    db.run(`DELETE FROM ${table} WHERE item_id IN (SELECT id FROM item WHERE batch = ?)`, batch);
}

/** How many occurrences the index holds of a calendar, counted as far as `most`. */
export function countOccurrences(db: Connection, calendarId: number, most: number): number {
  const count = (table: string) =>
    db.get<{ n: number }>(
      `SELECT count(*) AS n FROM (SELECT 1 FROM ${table} WHERE calendar_id = ? LIMIT ?)`,
      calendarId,
      most,
    )?.n ?? 0;
  return count('occurrence') + count('span');
}

/** How many occurrences a range holds, counted as far as `most`: how heavy reading it would be. */
export function weighRange(db: Connection, calendarId: number, from: number, to: number, most: number): number {
  const count = (table: string, look: string) =>
    db.get<{ n: number }>(
      `SELECT count(*) AS n FROM (SELECT 1 FROM ${table} WHERE calendar_id = @calendarId AND ${look} AND start < @to LIMIT @most)`,
      { calendarId, from, to, most },
    )?.n ?? 0;
  return count('occurrence', `start >= @from - ${SHORT}`) + count('span', 'finish > @from');
}

const readText = (width: Width) => `SELECT o.start AS at, o.finish AS until, ${COLUMNS[width]}
  FROM occurrence o JOIN item i ON i.id = o.item_id
  WHERE o.calendar_id = @calendarId AND o.start >= @from - ${SHORT} AND o.start < @to AND (o.finish > @from OR o.start >= @from)
  UNION ALL
  SELECT o.start, o.finish, ${COLUMNS[width]} FROM span o JOIN item i ON i.id = o.item_id
  WHERE o.calendar_id = @calendarId AND o.finish > @from - ${DATE_SLACK} AND o.start < @to + ${DATE_SLACK}`;
const READ: Record<Width, string> = {
  deciding: readText('deciding'),
  outline: readText('outline'),
  full: readText('full'),
  briefed: readText('briefed'),
  whole: readText('whole'),
};

/**
 * What happens in `[from, to)` of a calendar, in no order. Items by date come within 14 hours beyond both ends; the caller
 * cuts them by date. Only the columns of `width` are there.
 */
export function occurrencesIn(
  db: Connection,
  calendarId: number,
  from: number,
  to: number,
  width: Width,
): OccurrenceRow[] {
  return db.arrays<unknown[]>(READ[width], { calendarId, from, to }).map(ROW[width]) as OccurrenceRow[];
}

/** The same without the items: start, end and item of each occurrence, in order of start; at most `most`. */
export function occurrenceKeysIn(
  db: Connection,
  calendarId: number,
  from: number,
  to: number,
  most: number,
): [at: number, until: number, item: number][] {
  return db.arrays(
    `SELECT start, finish, item_id FROM occurrence
       WHERE calendar_id = @calendarId AND start >= @from - ${SHORT} AND start < @to AND (finish > @from OR start >= @from)
     UNION ALL
     SELECT start, finish, item_id FROM span
       WHERE calendar_id = @calendarId AND finish > @from - ${DATE_SLACK} AND start < @to + ${DATE_SLACK}
     ORDER BY 1, 3 LIMIT @most`,
    { calendarId, from, to, most },
  );
}

/** The next occurrence of a series in one table of the index, looked for from where one that isn't over may begin. */
const nextIn = (table: 'occurrence' | 'span', longest: string) =>
  `LEFT JOIN ${table} ON ${table}.calendar_id = i.calendar_id AND ${table}.item_id = i.id AND ${table}.start =
     (SELECT n.start FROM ${table} n WHERE n.item_id = i.id AND n.calendar_id = i.calendar_id
      AND n.start > @from - ${longest} AND n.finish > @from ORDER BY n.start LIMIT 1)
     AND (i.rule IS NOT NULL OR i.added <> '[]')`;
const NEXT = `SELECT coalesce(occurrence.start, span.start, i.start), coalesce(occurrence.finish, span.finish, i.finish),
  i.calendar_id, ${COLUMNS.whole}
  FROM json_each(@ids) j CROSS JOIN item i ON i.id = j.value
  ${nextIn('occurrence', `${SHORT}`)} ${nextIn('span', `(i.finish - i.start) - ${SHORT}`)}
  WHERE i.removed_at IS NULL`;

/**
 * Some items whole, by their row numbers, with the calendar of each: a series at its next occurrence that isn't over at an instant, as far as
 * the index goes; one of which there is no more, and what doesn't repeat, at its beginning. Those that were removed are left out.
 */
export function itemsAtNext(
  db: Connection,
  ids: readonly number[],
  from: number,
): { readonly calendarId: number; readonly row: OccurrenceRow }[] {
  return db
    .arrays<[number, number, number, ...unknown[]]>(NEXT, { ids: JSON.stringify(ids), from })
    .map(([at, until, calendarId, ...rest]) => ({ calendarId, row: ROW.whole([at, until, ...rest]) as OccurrenceRow }));
}

/** When the latest occurrence of an item that is over began, as far as the index goes; `null` where none is. */
export const lastBefore = (db: Connection, itemId: number, at: number): number | null =>
  db.get<{ at: number | null }>('SELECT max(start) AS at FROM occurrence WHERE item_id = ? AND finish <= ?', itemId, at)
    ?.at ?? null;
