import { fromWallLenient, toWall, weekdayOf } from '../time/index.ts';
import type { DeskPrincipal } from './facts.ts';

const DAY = 86_400_000;

/** The days of a principal: their midnights, and which of them are working days. Instants in epoch milliseconds. */
export interface DeskDays {
  /** The midnight at which a date (milliseconds as if UTC) begins. */
  readonly midnight: (date: number) => number;
  /** The midnight that ends the `n`th working day after today; with 0, the one that ends today. */
  readonly endOfWorkingDay: (n: number) => number;
  /** The `n`th working day after an instant's day, at that instant's wall time. */
  readonly workingDaysAfter: (instant: number, n: number) => number;
}

/**
 * The days of somebody's zone. A working day is one whose weekday the hours name any of; Monday to Friday where they name none. A wall time that
 * the clocks leave out is moved on by the gap; of a doubled one it is the first.
 */
export function daysOf({ zone, hours }: Pick<DeskPrincipal, 'zone' | 'hours'>, now: number): DeskDays {
  const named = (hours ?? []).map((day) => day.some(([from, to]) => from < to));
  const works = named.includes(true) ? named : [true, true, true, true, true, false, false];
  const dateOf = (instant: number) => Math.floor(toWall(zone, instant) / DAY) * DAY;
  const midnight = (date: number) => fromWallLenient(zone, date);
  /** The `n`th working day after a date. */
  const after = (date: number, n: number): number => {
    let day = date;
    for (let left = n; left > 0; ) {
      day += DAY;
      if (works[weekdayOf(day)]) left--;
    }
    return day;
  };
  const today = dateOf(now);
  return {
    midnight,
    endOfWorkingDay: (n) => midnight(after(today, n) + DAY),
    workingDaysAfter: (instant, n) => {
      const date = dateOf(instant);
      return fromWallLenient(zone, after(date, n) + (toWall(zone, instant) - date));
    },
  };
}
