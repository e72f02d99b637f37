import type { ItemPatch, ItemWire, WrittenAnswer } from '@/contract/items/items.ts';
import type { ApartAnswer } from '@/contract/items/several.ts';
import { CONTENT_FIELDS, type ContentField, pick } from '@/core/calendar/index.ts';
import { expand } from '@/core/recurrence/index.ts';
import { dateText, fromWallLenient, parseDate, parseWall, toWall, wallText } from '@/core/time/index.ts';
import { itemById, replacementsOf } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, Directory, findItem, isRefusal, mayOn, seriesOf, viewFor } from '../deciding/index.ts';
import { changeMeeting } from './save.ts';

const MOST = 366;

/**
 * The picked days and the exceptions of a series, for whoever sees it in full: the dates that were left out, as its clock has them, and the
 * occurrences that became items of their own, each as the viewer sees it.
 */
export function listApart(ctx: Context, id: string): Result<ApartAnswer> {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return found;
  const series = found.item.seriesId === null ? found.item : itemById(ctx.db, found.item.seriesId);
  if (!series || !('notes' in (viewFor(ctx, found.decided, series) ?? {}))) return refuse('notFound');
  const directory = new Directory(ctx.db);
  const own = replacementsOf(ctx.db, series.id);
  const stands = new Set(own.map((item) => item.recurrence));
  const left = series.left.filter((date) => !stands.has(date));
  // Occurrences the asker doesn't see are counted nowhere, not even in the mark that there are more.
  const apart: { was: string; item: ItemWire }[] = [];
  for (const item of own) {
    const view = viewFor(ctx, found.decided, item, item, directory);
    if (view && 'notes' in view) apart.push({ was: item.recurrence ?? '', item: view });
    if (apart.length > MOST) break;
  }
  const first = series.allDay ? series.start : (series.wall ?? toWall(series.zone, series.start));
  const start = series.allDay ? dateText(first) : wallText(first);
  const dates = [...(series.rule === null ? [start] : []), ...series.added].filter((one) => !left.includes(one));
  const isUsual = (one: string) => one.slice(11) === start.slice(11);
  const days = [...new Set(dates.map((one) => (isUsual(one) ? one.slice(0, 10) : one)))].sort();
  return ok({
    days: days.slice(0, MOST),
    left: left.slice(-MOST),
    apart: apart.slice(0, MOST),
    cut: days.length > MOST || left.length > MOST || apart.length > MOST,
  });
}

/**
 * Makes an occurrence that was changed by itself as its series again: its hours and what it says. It is an ordinary change, told to whoever is
 * asked like any; refused to whoever doesn't see the series in full or may not change it.
 */
export function rejoinItem(ctx: Context, id: string, version: number): Result<WrittenAnswer> {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return found;
  const { item, decided } = found;
  const series = item.seriesId === null ? null : itemById(ctx.db, item.seriesId);
  if (!series || series.removedAt !== null || item.recurrence === null) return refuse('noSeries');
  const seen = viewFor(ctx, decided, series);
  if (!seen || !('notes' in seen) || !mayOn(ctx, decided.decision, series).change) return refuse('noSeries');
  const is = (one: StoredItem, name: ContentField) => JSON.stringify(one[name]);
  const others = CONTENT_FIELDS.filter(
    (name) => name in seen && name in found.view && is(item, name) !== is(series, name),
  );
  const fields: ItemPatch['fields'] = pick(series, others);
  const when = timeInSeries(series, item.recurrence);
  if (!when) return refuse('noSeries');
  const same = when.start === item.start && when.end === item.end && series.allDay === item.allDay;
  const zone = new Directory(ctx.db).zone(series.zone);
  const text = (at: number) => (series.allDay ? dateText(at) : wallText(toWall(zone, at)));
  const times = { start: text(when.start), end: text(when.end), allDay: series.allDay, zone };
  return changeMeeting(ctx, id, { version, scope: 'one', ...(same ? {} : { when: times }), fields });
}

/** When a series would have the occurrence that is known by some start of it, were it left out or not; `null` where it has none there. */
function timeInSeries(series: StoredItem, recurrence: string): { start: number; end: number } | null {
  const wall = series.allDay ? parseDate(recurrence.slice(0, 10)) : parseWall(recurrence);
  if (wall === null) return null;
  const at = series.allDay ? wall : fromWallLenient(series.zone, wall);
  return expand(seriesOf({ ...series, left: [] }, []), at, at + 1000, 1).occurrences[0] ?? null;
}
