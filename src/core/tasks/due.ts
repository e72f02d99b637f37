import { expand, type Rule, ruleFrom } from '../recurrence/index.ts';
import { dateText, fromWallLenient, instantText, toWall } from '../time/index.ts';
import type { Tie } from './task.ts';

const DAY = 86_400_000;
const MINUTE = 60_000;
/** How far ahead the next time of a repeat is looked for. */
const LOOK_AHEAD = 11 * 366 * DAY;

/** When something is due: a day (its start as if UTC), or an instant; both in epoch milliseconds. */
export type Due = { readonly date: number } | { readonly instant: number };

/** The last instant at which something is in time: of a day, the minute before the midnight that ends it on a zone's clock. */
export const dueEnds = (due: Due, zone: string): number =>
  'instant' in due ? due.instant : fromWallLenient(zone, due.date + DAY) - MINUTE;

/** The day on a zone's clock on which something is due, as if UTC. */
export const dueDay = (due: Due, zone: string): number =>
  'date' in due ? due.date : Math.floor(toWall(zone, due.instant) / DAY) * DAY;

/** The same time some days on, on the clock of a zone. */
export function dueLater(due: Due, days: number, zone: string): Due {
  if ('date' in due) return { date: due.date + days * DAY };
  return { instant: fromWallLenient(zone, toWall(zone, due.instant) + days * DAY) };
}

/**
 * When a repeated task is due next after a time it is due, and the rule from there on; `null` where that was the last. The rule counts from the
 * time it is due, on the clock of its zone.
 */
export function nextDue(due: Due, rule: Rule, zone: string): { readonly due: Due; readonly rule: string } | null {
  const allDay = 'date' in due;
  const startWall = allDay ? due.date : toWall(zone, due.instant);
  const start = allDay ? due.date : due.instant;
  const series = { startWall, length: { days: 0, ms: 0 }, allDay, zone, rule, added: [], left: [] };
  const { occurrences } = expand(series, start + 1, start + LOOK_AHEAD, 1);
  const next = occurrences[0];
  if (!next) return null;
  return {
    due: allDay ? { date: next.start } : { instant: next.start },
    rule: ruleFrom(rule, startWall, next.wall),
  };
}

/** What of a task says whether it falls into a time. */
export interface Timed {
  readonly due: Due | null;
  readonly rule: string | null;
  readonly zone: string;
  /** When it was done, as far as that is said. */
  readonly doneAt: number | null;
}

/**
 * Whether a task falls between two instants (RFC 4791 9.9, of what our text says of it): by the time it is due, where it repeats by any of its
 * times, without one by when it was done; what says no time at all falls into all of them.
 */
export function isWithin({ due, rule, zone, doneAt }: Timed, from: number, to: number): boolean {
  if (due === null) return doneAt === null || (from <= doneAt && to >= doneAt);
  const allDay = 'date' in due;
  const at = allDay ? fromWallLenient(zone, due.date) : due.instant;
  if (rule === null) return from < at && to >= at;
  const startWall = allDay ? due.date : toWall(zone, due.instant);
  const length = allDay ? { days: 1, ms: 0 } : { days: 0, ms: 1000 };
  const series = { startWall, length, allDay, zone, rule: { kind: 'rule', text: rule } as const, added: [], left: [] };
  // One that began before, and is not over when the time begins, falls into it too.
  const [since, until] = allDay ? [toWall(zone, from) - DAY, toWall(zone, to)] : [from - 1000, to];
  return expand(series, since, until, 1).occurrences.length > 0;
}

/** The span of an item that a task belongs to: instants, or days as if UTC (the last not included) where all day. */
export interface TiedTo {
  readonly start: number;
  readonly end: number;
  readonly allDay: boolean;
}

/** On which day a task is due that belongs to an item, on the clock of its owner: so many days before it begins, or after it is over. */
export function tiedDue(item: TiedTo, tie: Tie, days: number, zone: string): Due {
  const day = (at: number) => Math.floor((item.allDay ? at : toWall(zone, at)) / DAY) * DAY;
  if (tie === 'followUp') return { date: day(Math.max(item.start, item.end - 1)) + days * DAY };
  return { date: day(item.start) - days * DAY };
}

/** A time as text: a date, or an instant. */
export const dueText = (due: Due): string => ('date' in due ? dateText(due.date) : instantText(due.instant));
