import type { ItemWire } from '@/contract/items/items.ts';
import type { SeenChange } from '@/contract/items/live.ts';
import { expand } from '@/core/recurrence/index.ts';
import { dateText, fromWallLenient, instantText } from '@/core/time/index.ts';
import type { Connection } from '../../../db/index.ts';
import type { Calendar } from '../../../repositories/calendars.ts';
import { itemById, replacementsOf } from '../../../repositories/items.ts';
import { asListed, type OccurrenceRow } from '../../../repositories/occurrence-row.ts';
import type { StoredItem } from '../../../repositories/stored-item.ts';
import type { Directory } from '../context/directory.ts';
import { repeats, seriesOf } from '../writing/indexing.ts';
import { daysOf, loadOf } from './load.ts';
import { rowOf } from './row-item.ts';
import { isHeavy, rowsIn } from './rows-in.ts';
import { type Looker, viewsOfRows } from './views.ts';

export type Change = { readonly before: StoredItem | null; readonly after: StoredItem | null };

const DAY = 86_400_000;
/** The weeks around now for which the occurrences of a repeat are told: those windows are likeliest to show. */
const BACK = 21 * DAY;
const AHEAD = 49 * DAY;
/** The longest an occurrence that began before may reach into them. */
const LONGEST = 100 * DAY;
/** Occurrences before and after that are told of one write, and days of booked minutes. Beyond, a window asks. */
const MOST_ROWS = 150;
const MOST_DAYS = 7;

/** What happens of the changed items before a write and after it; `within` where a repeat changed, which was looked at no further. */
export interface ChangedRows {
  readonly before: readonly OccurrenceRow[];
  readonly after: readonly OccurrenceRow[];
  readonly within: { readonly from: number; readonly to: number } | null;
}

/**
 * The occurrences that a write touches, before and after. Where an occurrence becomes an item of its own, or stops being one, its series is
 * touched too. `null` where there are too many to tell of.
 */
export function changedRows(
  db: Connection,
  calendar: Calendar,
  changes: readonly Change[],
  now: number,
): ChangedRows | null {
  const items = new Map<number, { before: StoredItem | null; after: StoredItem | null }>();
  const of = (change: Change) => (change.after ?? change.before) as StoredItem;
  for (const change of changes) {
    const { id } = of(change);
    items.set(id, { before: items.has(id) ? (items.get(id)?.before ?? null) : change.before, after: change.after });
  }
  for (const { seriesId, calendarId } of changes.map(of)) {
    if (seriesId === null || items.has(seriesId)) continue;
    const series = itemById(db, seriesId);
    if (series && calendarId === calendar.id) items.set(seriesId, { before: series, after: series });
  }
  const within = { from: now - BACK, to: now + AHEAD };
  const all = [...items.values()];
  let cut = false;
  const rows = (item: StoredItem | null, replaced: (id: number) => string[]): OccurrenceRow[] => {
    if (item === null || item.removedAt !== null || cut) return [];
    if (!repeats(item)) return [asListed(rowOf(item))];
    const from = within.from - Math.min(item.end - item.start, LONGEST);
    const found = expand(seriesOf(item, replaced(item.id)), from, within.to, MOST_ROWS);
    if (found.cut) cut = true;
    return found.occurrences.map((h) => asListed(rowOf(item, h.start, h.end)));
  };
  const standing = (id: number) => replacementsOf(db, id).map((r) => r.recurrence as string);
  const was = (id: number): string[] => {
    const texts = new Set(standing(id));
    for (const { before, after } of all)
      for (const [item, other] of [
        [before, after],
        [after, before],
      ] as const) {
        if (item?.seriesId !== id || item.recurrence === null || item.removedAt !== null) continue;
        if (other !== null && other.removedAt === null) continue;
        if (item === before) texts.add(item.recurrence);
        else texts.delete(item.recurrence);
      }
    return [...texts];
  };
  const before = all.flatMap((c) => rows(c.before, was));
  const after = all.flatMap((c) => rows(c.after, standing));
  if (cut || before.length + after.length > 2 * MOST_ROWS) return null;
  const series = all.some((c) => [c.before, c.after].some((item) => item !== null && repeats(item)));
  return { before, after, within: series ? within : null };
}

/** The days around a change, read once for all who hear of it. */
export class DayRows {
  private readonly known = new Map<string, readonly OccurrenceRow[] | null>();
  constructor(
    private readonly db: Connection,
    private readonly calendar: Calendar,
  ) {}

  /** What happens on some dates of a zone; `null` where it is too much to read here. */
  on(first: number, last: number, zone: string): readonly OccurrenceRow[] | null {
    const key = `${first} ${last} ${zone}`;
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const range = {
      from: fromWallLenient(zone, first),
      to: fromWallLenient(zone, last + DAY),
      fromDate: dateText(first),
      toDate: dateText(last + DAY),
    };
    const rows = isHeavy(this.db, this.calendar, range)
      ? null
      : [...rowsIn(this.db, this.calendar, range, 'briefed').rows];
    this.known.set(key, rows);
    return rows;
  }
}

/** What one looker sees of a change: by the same projection as any answer. `zone` is whose days are counted; `null` for nobody's. */
export function seenChange(
  db: Connection,
  directory: Directory,
  rows: ChangedRows,
  looker: Looker,
  zone: string | null,
  dayRows: DayRows,
): SeenChange {
  const views = (list: readonly OccurrenceRow[]) =>
    new Map(viewsOfRows(db, directory, list, looker).map((view) => [view.id, view]));
  const [was, is] = [views(rows.before), views(rows.after)];
  const shown = [...is.values()].filter((view) => JSON.stringify(was.get(view.id)) !== JSON.stringify(view));
  const gone = [...was.values()].filter((view) => !is.has(view.id));
  const { within } = rows;
  const touched = [...gone, ...shown, ...shown.flatMap((view) => was.get(view.id) ?? [])];
  return {
    within: within && { from: instantText(within.from), to: instantText(within.to) },
    gone: gone.map((view) => view.id),
    shown,
    days: zone === null ? null : daysFor(db, directory, touched, looker, zone, dayRows),
  };
}

function daysFor(
  db: Connection,
  directory: Directory,
  touched: readonly ItemWire[],
  looker: Looker,
  zone: string,
  dayRows: DayRows,
): SeenChange['days'] {
  const spans = touched.flatMap((view) => daysOf(view, zone) ?? []);
  if (spans.length === 0) return { zone, days: [] };
  const first = Math.min(...spans.map((s) => s.first));
  const last = Math.max(...spans.map((s) => s.last));
  if (last - first >= MOST_DAYS * DAY) return null;
  const rows = dayRows.on(first, last, zone);
  if (rows === null) return null;
  const range = { from: dateText(first), to: dateText(last + DAY), zone };
  return { zone, days: loadOf(viewsOfRows(db, directory, rows, looker), range) };
}
