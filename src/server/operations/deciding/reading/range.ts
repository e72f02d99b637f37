import type { RangeQuery } from '@/contract/items/items.ts';
import { dateText, fromWallLenient, inBounds, isZone, parseDate, toWall } from '@/core/time/index.ts';
import { type Refusal, refuse } from '../../../result.ts';
import type { Range } from './views.ts';

const MOST_DAYS = 100;
const DAY = 86_400_000;

/** The range a query names, or the field that is wrong with it. */
export function readRange(query: RangeQuery): Range | Refusal {
  if (!isZone(query.zone)) return refuse('badInput', { fields: { zone: 'zone' } });
  const from = parseDate(query.from);
  const to = parseDate(query.to);
  if (from === null) return refuse('badInput', { fields: { from: 'date' } });
  if (!inBounds(from)) return refuse('badInput', { fields: { from: 'dateBounds' } });
  if (to === null || to <= from || to - from > MOST_DAYS * DAY) return refuse('badInput', { fields: { to: 'range' } });
  return {
    from: fromWallLenient(query.zone, from),
    to: fromWallLenient(query.zone, to),
    fromDate: query.from,
    toDate: query.to,
  };
}

/**
 * A time on somebody's clock: its instants, and the dates it touches there, of which the last isn't any more. All day, `start` and `end` are the
 * dates as if UTC, the end not any more.
 */
export function rangeOf({ start, end, allDay }: { start: number; end: number; allDay: boolean }, zone: string): Range {
  if (allDay) {
    const [from, to] = [fromWallLenient(zone, start), fromWallLenient(zone, end)];
    return { from, to, fromDate: dateText(start), toDate: dateText(end) };
  }
  const last = toWall(zone, Math.max(start, end - 1));
  return { from: start, to: end, fromDate: dateText(toWall(zone, start)), toDate: dateText(last + DAY) };
}
