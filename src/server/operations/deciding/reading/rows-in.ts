import { dateText } from '@/core/time/index.ts';
import type { Connection } from '../../../db/index.ts';
import type { Calendar } from '../../../repositories/calendars.ts';
import { itemById, repeatingIds } from '../../../repositories/items.ts';
import { asListed, type OccurrenceRow, type Width } from '../../../repositories/occurrence-row.ts';
import { occurrenceKeysIn, occurrencesIn, weighRange } from '../../../repositories/occurrences.ts';
import type { StoredItem } from '../../../repositories/stored-item.ts';
import { LIGHT_OCCURRENCES, LIGHT_SERIES, MOST_OCCURRENCES_IN_CALENDAR } from '../budgets.ts';
import { occurrencesBetween } from '../writing/indexing.ts';
import { rowOf } from './row-item.ts';

/** Days of a calendar: instants in epoch milliseconds for what has hours, dates for what is all day. */
export interface Range {
  readonly from: number;
  readonly to: number;
  readonly fromDate: string;
  readonly toDate: string;
}

const DAY = 86_400_000;
/** The longest an occurrence that began before a range may reach into it, as far as it is looked for beyond the index. */
const LONGEST = 1100 * DAY;
/** Series worked out beyond the index, and occurrences of them, for one reading. */
const MOST_SERIES = 20_000;

/** The parts of a range that lie before and behind what the index holds of repeats. */
function beyondIndex(calendar: Calendar, range: Range): { from: number; to: number }[] {
  const before = { from: range.from - DAY, to: Math.min(range.to + DAY, calendar.indexedFrom) };
  const behind = { from: Math.max(range.from - DAY, calendar.indexedUntil), to: range.to + DAY };
  return [before, behind].filter((part) => part.from < part.to);
}

/** Whether reading a range is more than a request's thread should do: many occurrences, or many series beyond the index. */
export function isHeavy(db: Connection, calendar: Calendar, range: Range): boolean {
  if (weighRange(db, calendar.id, range.from, range.to, LIGHT_OCCURRENCES) >= LIGHT_OCCURRENCES) return true;
  return (
    beyondIndex(calendar, range).length > 0 && repeatingIds(db, calendar.id, LIGHT_SERIES + 1).length > LIGHT_SERIES
  );
}

/**
 * What happens in a range of a calendar, in order of start, with the columns of a width. Small ranges are read at once; in large ones each
 * item is read only when its turn comes, so that nothing beyond the budget is read. `unread` says that some series beyond the index were
 * not expanded.
 */
export function rowsIn(
  db: Connection,
  calendar: Calendar,
  range: Range,
  width: Width,
): { rows: Iterable<OccurrenceRow>; unread: boolean } {
  const far = rowsBeyond(db, calendar, range, width);
  const shown = (row: OccurrenceRow): boolean =>
    (!row.all_day || (dateText(row.at) < range.toDate && dateText(row.until) > range.fromDate)) &&
    !(far.series.has(row.id) && (row.at < calendar.indexedFrom || row.at >= calendar.indexedUntil));
  const inOrder = (a: OccurrenceRow, b: OccurrenceRow): number => a.at - b.at || a.id - b.id;
  if (weighRange(db, calendar.id, range.from, range.to, LIGHT_OCCURRENCES) < LIGHT_OCCURRENCES) {
    const near = occurrencesIn(db, calendar.id, range.from, range.to, width).filter(shown);
    const all = far.rows.length === 0 ? near : [...near, ...far.rows];
    return { rows: all.sort(inOrder), unread: far.unread };
  }
  return { rows: merged(oneByOne(db, calendar, range, width, shown), far.rows), unread: far.unread };
}

function* oneByOne(
  db: Connection,
  calendar: Calendar,
  range: Range,
  width: Width,
  shown: (row: OccurrenceRow) => boolean,
): Generator<OccurrenceRow> {
  const items = new Map<number, StoredItem | null>();
  for (const [at, until, id] of occurrenceKeysIn(db, calendar.id, range.from, range.to, MOST_OCCURRENCES_IN_CALENDAR)) {
    let item = items.get(id);
    if (item === undefined) {
      if (items.size > 500) items.clear();
      item = itemById(db, id);
      items.set(id, item);
    }
    const row = item && rowOf(item, at, until);
    if (row && shown(row)) yield width === 'whole' ? row : asListed(row);
  }
}

function* merged(near: Iterable<OccurrenceRow>, far: readonly OccurrenceRow[]): Generator<OccurrenceRow> {
  let i = 0;
  for (const row of near) {
    while (i < far.length && (far[i] as OccurrenceRow).at <= row.at) yield far[i++] as OccurrenceRow;
    yield row;
  }
  while (i < far.length) yield far[i++] as OccurrenceRow;
}

/** Occurrences of repeats beyond the index, worked out for just this range. */
function rowsBeyond(
  db: Connection,
  calendar: Calendar,
  range: Range,
  width: Width,
): { rows: OccurrenceRow[]; series: ReadonlySet<number>; unread: boolean } {
  const parts = beyondIndex(calendar, range);
  const rows: OccurrenceRow[] = [];
  const series = new Set<number>();
  if (parts.length === 0) return { rows, series, unread: false };
  const ids = repeatingIds(db, calendar.id, MOST_SERIES + 1);
  let unread = ids.length > MOST_SERIES;
  for (const [id] of ids.slice(0, MOST_SERIES)) {
    series.add(id);
    const item = itemById(db, id);
    if (!item) continue;
    const long = Math.min(item.end - item.start + DAY, LONGEST);
    for (const { from, to } of parts) {
      // What began before the range may reach into it; what began within the index's years is there already.
      const since = from === calendar.indexedUntil ? from : from - long;
      for (const h of occurrencesBetween(db, item, since, to)) {
        const overlaps = item.allDay
          ? dateText(h.start) < range.toDate && dateText(h.end) > range.fromDate
          : h.start < range.to && (h.end > range.from || h.start >= range.from);
        if (!overlaps || (h.start >= calendar.indexedFrom && h.start < calendar.indexedUntil)) continue;
        const row = rowOf(item, h.start, h.end);
        rows.push(width === 'whole' ? row : asListed(row));
      }
    }
    if (rows.length > MOST_OCCURRENCES_IN_CALENDAR) {
      unread = true;
      break;
    }
  }
  rows.sort((a, b) => a.at - b.at || a.id - b.id);
  return { rows, series, unread };
}
