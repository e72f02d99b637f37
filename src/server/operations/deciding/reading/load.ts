import type { ItemWire, LoadAnswer } from '@/contract/items/items.ts';
import { takesTime } from '@/core/calendar/index.ts';
import { dateText, parseDate, parseInstant, toWall } from '@/core/time/index.ts';

const DAY = 86_400_000;

/** Booked minutes and clashes of each day of a range of dates (the last not included) in a zone, from views of all that happens then. */
export function loadOf(
  items: readonly ItemWire[],
  range: { readonly from: string; readonly to: string; readonly zone: string },
): LoadAnswer['days'] {
  const days = new Map<string, { from: number; to: number }[]>();
  const first = parseDate(range.from) as number;
  const last = parseDate(range.to) as number;
  for (let day = first; day < last; day += DAY) days.set(dateText(day), []);
  for (const item of items) {
    if (!blocks(item)) continue;
    const start = toWall(range.zone, parseInstant(item.start) as number);
    const end = toWall(range.zone, parseInstant(item.end) as number);
    for (let day = Math.floor(start / DAY) * DAY; day < end; day += DAY)
      days.get(dateText(day))?.push({ from: Math.max(start, day), to: Math.min(end, day + DAY) });
  }
  return [...days].map(([date, spans]) => ({ date, ...sum(spans) }));
}

/** The dates of a zone on which a view takes hours, the first and the last; `null` where it takes none. */
export function daysOf(item: ItemWire, zone: string): { readonly first: number; readonly last: number } | null {
  if (!blocks(item)) return null;
  const day = (wall: number) => Math.floor(wall / DAY) * DAY;
  const start = toWall(zone, parseInstant(item.start) as number);
  const end = toWall(zone, parseInstant(item.end) as number);
  return { first: day(start), last: Math.max(day(start), day(end - 1)) };
}

/** Whether a view takes hours of the day: free time, whole days and whereabouts don't. */
function blocks(item: ItemWire): boolean {
  return !item.allDay && takesTime(item);
}

function sum(spans: { from: number; to: number }[]): { booked: number; clashes: number } {
  spans.sort((a, b) => a.from - b.from);
  let booked = 0;
  let clashes = 0;
  let until = Number.NEGATIVE_INFINITY;
  for (const span of spans) {
    if (span.from < until) clashes++;
    booked += Math.max(0, span.to - Math.max(span.from, until));
    until = Math.max(until, span.to);
  }
  return { booked: Math.round(booked / 60_000), clashes };
}
