import type { ItemWire } from '@/contract/items/items.ts';
import { takesTime } from '@/core/calendar/index.ts';
import { MINUTE, wallsOf } from '../../common/times.ts';

type Span = readonly [from: number, to: number];

/** The taken time of a calendar on the clock of a zone, as far as one sees it; what is free or only says where somebody is takes none. */
export const takenBy = (items: readonly ItemWire[], zone: string, but?: string): Span[] =>
  items
    .filter((item) => item.id !== but && takesTime(item))
    .map((item) => {
      const { start, end } = wallsOf(item, zone);
      return [start, end] as const;
    });

/**
 * The first quarter of an hour, from an instant on and to an end, at which so much time lies free of all spans; `null` where there is none.
 * Times are milliseconds on one clock.
 */
export function nextGap(spans: readonly Span[], from: number, until: number, length: number): number | null {
  const quarter = (at: number) => Math.ceil(at / (15 * MINUTE)) * 15 * MINUTE;
  const sorted = [...spans].sort((a, b) => a[0] - b[0]);
  let at = quarter(from);
  for (const [start, end] of sorted) {
    if (start >= at + length) break;
    if (end > at) at = quarter(end);
  }
  return at + length <= until ? at : null;
}

/** Where the next clash is, from an instant on: the first start at which so much time would lie over a span. */
export function nextTaken(spans: readonly Span[], from: number, until: number): number | null {
  const starts = spans.map(([start]) => start).filter((start) => start >= from && start < until);
  return starts.length === 0 ? null : Math.min(...starts);
}
