import type { Connection } from '../db/index.ts';
import { COLUMNS, type HappeningRow, ROW, type Width } from './happening-row.ts';

/** The longest item the short index holds; reading a range looks back exactly this far. */
const SHORT = 26 * 3_600_000;
/** All-day items stand by date; no zone's day lies further from UTC's than this. */
const DATE_SLACK = 14 * 3_600_000;

export interface Happening {
  readonly start: number;
  readonly end: number;
}

/** Replaces what the index holds of an item from `from` on. Call it in the transaction that writes the item. */
export function reindex(
  db: Connection,
  calendarId: number,
  itemId: number,
  allDay: boolean,
  happenings: readonly Happening[],
  from = Number.MIN_SAFE_INTEGER,
): void {
  for (const table of ['occurrence', 'span'])
    db.run(`DELETE FROM ${table} WHERE calendar_id = ? AND start >= ? AND item_id = ?`, calendarId, from, itemId);
  const add = (table: string, list: readonly Happening[]) => {
    if (list.length === 0) return;
    db.run(
      `INSERT INTO ${table} (calendar_id, start, item_id, finish)
       SELECT ?, json_extract(value, '$[0]'), ?, json_extract(value, '$[1]') FROM json_each(?)`,
      calendarId,
      itemId,
      JSON.stringify(list.map((h) => [h.start, h.end])),
    );
  };
  add(
    'occurrence',
    happenings.filter((h) => !allDay && h.end - h.start <= SHORT),
  );
  add(
    'span',
    happenings.filter((h) => allDay || h.end - h.start > SHORT),
  );
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
};

/**
 * What happens in `[from, to)` of a calendar, in no order. Items by date come within 14 hours beyond both ends; the caller
 * cuts them by date. Only the columns of `width` are there.
 */
export function happeningsIn(
  db: Connection,
  calendarId: number,
  from: number,
  to: number,
  width: Width,
): HappeningRow[] {
  return db.arrays<unknown[]>(READ[width], { calendarId, from, to }).map(ROW[width]) as HappeningRow[];
}
