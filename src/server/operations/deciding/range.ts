import type { RangeQuery } from '@/contract/items.ts';
import { fromWallLenient, inBounds, isZone, parseDate } from '@/core/time/index.ts';
import { type Refusal, refuse } from '../../result.ts';
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
