import type { ItemWire, LoadAnswer } from '@/contract/items/items.ts';
import type { ChangedMessage, SeenChange } from '@/contract/items/live.ts';
import type { Version } from '@/contract/version.ts';
import { fromWallLenient, parseDate, parseInstant } from '@/core/time/index.ts';

/** Dates of a zone, the last not included: what a window has asked for. */
export interface Dates {
  readonly from: string;
  readonly to: string;
  readonly zone: string;
}

/** What a window holds of a calendar: an answer with the version it is as of. */
interface Held {
  readonly version: Version | null;
}
interface HeldItems extends Held {
  readonly items: readonly ItemWire[];
  readonly more: number | null;
}

/** Where a message stands to what is held: already in it, next in line, or beyond a gap. */
export function standingOf(held: Version | null, { follows, version }: ChangedMessage): 'known' | 'next' | 'gap' {
  if (held === null || held[0] < version[0]) return 'gap';
  if (held[0] > version[0] || held[1] >= version[1]) return 'known';
  return held[1] >= follows[1] ? 'next' : 'gap';
}

/** The instants that some dates hold, those that bound them on the clock included. */
function instantsOf({ from, to, zone }: Dates): { from: number; to: number } {
  return {
    from: fromWallLenient(zone, parseDate(from) as number),
    to: fromWallLenient(zone, parseDate(to) as number),
  };
}

/** Whether a view belongs into an answer for some dates: the server's own bounds. */
function isIn(item: ItemWire, dates: Dates, range: { from: number; to: number }): boolean {
  if (item.allDay) return item.start < dates.to && item.end > dates.from;
  const start = parseInstant(item.start) as number;
  return start < range.to && ((parseInstant(item.end) as number) > range.from || start >= range.from);
}

const at = (item: ItemWire): number => (item.allDay ? parseDate(item.start) : parseInstant(item.start)) ?? 0;

/** Whether a change says all of what it changed within some instants. */
function covers({ within }: SeenChange, range: { from: number; to: number }): boolean {
  if (within === null) return true;
  return (parseInstant(within.from) as number) <= range.from && (parseInstant(within.to) as number) >= range.to;
}

/** Puts a change into a list of items; `null` where it has to be asked for: too much is open, or it doesn't say all. */
export function putInto<A extends HeldItems>(answer: A, message: ChangedMessage, dates: Dates): A | null {
  const { seen, version } = message;
  const range = instantsOf(dates);
  if (seen === null || answer.more !== null || !covers(seen, range)) return null;
  const out = new Set([...seen.gone, ...seen.shown.map((item) => item.id)]);
  const untouched = answer.items.filter((item) => !out.has(item.id));
  const items = [...untouched, ...seen.shown.filter((item) => isIn(item, dates, range))].sort((a, b) => at(a) - at(b));
  return { ...answer, items, version };
}

/** Puts a change's days into booked minutes; `null` where they have to be asked for. */
export function putDays(answer: LoadAnswer, message: ChangedMessage, dates: Dates): LoadAnswer | null {
  const { seen, version } = message;
  if (!seen?.days || seen.days.zone !== dates.zone || answer.cutShort || !covers(seen, instantsOf(dates))) return null;
  const fresh = new Map(seen.days.days.map((day) => [day.date, day]));
  return { ...answer, days: answer.days.map((day) => fresh.get(day.date) ?? day), version };
}
