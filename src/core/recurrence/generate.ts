import { civil, dayNumber, weekdayOfDay } from '../time/index.ts';
import type { Parts } from './parts.ts';

const DAY = 86_400_000;
const HOUR = 3_600_000;
const MINUTE = 60_000;
/** How many periods (days, hours ...) one call looks at before it gives up. */
const MOST_STEPS = 400_000;

/** What a walk found: starts in order, and whether a budget ended it. */
export interface Generated {
  readonly walls: readonly number[];
  readonly cut: boolean;
}

/**
 * The wall-clock starts that a rule gives in `[from, to)`, in order, at most `budget` of them (RFC 5545 3.3.10); DTSTART itself
 * is among them only where `withStart` asks for it. The walk begins at the period in which the range begins, however long ago the series did; only a counted rule is
 * walked from its start. `exists` says of a wall time whether the clocks ever show it: one that they don't isn't counted.
 */
export function generate(
  parts: Parts,
  startWall: number,
  from: number,
  to: number,
  budget: number,
  exists: (wall: number) => boolean,
  withStart = false,
): Generated {
  const set = filled(parts, startWall);
  const end = Math.min(to, parts.until === null ? to : parts.until + 1);
  const walls: number[] = [];
  // DTSTART is the first of the counted ones, whether the rule gives it or not.
  let left = parts.count === null ? Number.POSITIVE_INFINITY : parts.count - 1;
  const counted = parts.count !== null;
  const periods = periodsOf(set, startWall);
  let k = counted ? 0 : Math.max(0, periods.indexAt(from) - 1);
  for (let step = 0; step < MOST_STEPS; step++) {
    if (periods.startOf(k) >= end || left <= 0) return { walls, cut: false };
    const found = periods.at(k);
    for (const wall of set.bySetPos.length > 0 ? positions(found, set.bySetPos) : found) {
      if (wall < startWall || (wall === startWall && !withStart)) continue;
      if (wall >= end) return { walls, cut: false };
      if (counted) {
        if (!exists(wall)) continue;
        if (left-- <= 0) return { walls, cut: false };
      }
      if (wall < from) continue;
      if (walls.length >= budget) return { walls, cut: true };
      walls.push(wall);
    }
    k = periods.next(k);
  }
  return { walls, cut: true };
}

/** The rule with what it takes from DTSTART filled in: day of the month, weekday, time of day. */
function filled(p: Parts, startWall: number): Parts {
  const days = Math.floor(startWall / DAY);
  const [, month, day] = civil(days);
  const inDay = startWall - days * DAY;
  const noDays =
    p.byWeekNo.length === 0 && p.byYearDay.length === 0 && p.byMonthDay.length === 0 && p.byDay.length === 0;
  const weekly = [{ nth: 0, day: weekdayOfDay(days) }];
  const dated =
    p.byWeekNo.length > 0 && p.byYearDay.length === 0 && p.byMonthDay.length === 0 && p.byDay.length === 0
      ? { byDay: weekly }
      : !noDays
        ? {}
        : p.freq === 'YEARLY'
          ? { byMonth: p.byMonth.length > 0 ? p.byMonth : [month], byMonthDay: [day] }
          : p.freq === 'MONTHLY'
            ? { byMonthDay: [day] }
            : p.freq === 'WEEKLY'
              ? { byDay: weekly }
              : {};
  const timed = p.freq !== 'HOURLY' && p.freq !== 'MINUTELY';
  return {
    ...p,
    ...dated,
    byHour: p.byHour.length > 0 || !timed ? p.byHour : [Math.floor(inDay / HOUR)],
    byMinute: p.byMinute.length > 0 || p.freq === 'MINUTELY' ? p.byMinute : [Math.floor(inDay / MINUTE) % 60],
    bySecond: p.bySecond.length > 0 ? p.bySecond : [Math.floor(inDay / 1000) % 60],
  };
}

function positions(found: readonly number[], wanted: readonly number[]): number[] {
  const picked = new Set<number>();
  for (const p of wanted) {
    const wall = found[p > 0 ? p - 1 : found.length + p];
    if (wall !== undefined) picked.add(wall);
  }
  return [...picked].sort((a, b) => a - b);
}

/** The periods of a rule's frequency, numbered from the one that holds DTSTART. */
interface Periods {
  /** The number of the period that holds a wall time, rounded down to one that the interval meets. */
  indexAt(wall: number): number;
  startOf(k: number): number;
  at(k: number): readonly number[];
  next(k: number): number;
}

function periodsOf(p: Parts, startWall: number): Periods {
  switch (p.freq) {
    case 'YEARLY':
      return p.byWeekNo.length > 0 ? weekYears(p, startWall) : years(p, startWall);
    case 'MONTHLY':
      return months(p, startWall);
    case 'WEEKLY':
      return weeks(p, startWall);
    case 'DAILY':
      return days(p, startWall);
    case 'HOURLY':
      return within(p, startWall, HOUR);
    case 'MINUTELY':
      return within(p, startWall, MINUTE);
    default:
      return p.freq satisfies never;
  }
}

const one = (k: number): number => k + 1;

function years(p: Parts, startWall: number): Periods {
  const [first] = civil(Math.floor(startWall / DAY));
  const yearOf = (k: number) => first + k * p.interval;
  return {
    indexAt: (wall) => Math.floor((civil(Math.floor(wall / DAY))[0] - first) / p.interval),
    startOf: (k) => dayNumber(yearOf(k), 1, 1) * DAY,
    at: (k) => {
      const year = yearOf(k);
      const months = p.byMonth.length > 0 ? p.byMonth : TWELVE;
      return timed(
        p,
        months.flatMap((month) => daysOfMonth(p, year, month)),
      );
    },
    next: one,
  };
}

const TWELVE = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12];

function months(p: Parts, startWall: number): Periods {
  const [year, month] = civil(Math.floor(startWall / DAY));
  const first = year * 12 + month - 1;
  const monthOf = (k: number) => first + k * p.interval;
  return {
    indexAt: (wall) => {
      const [y, m] = civil(Math.floor(wall / DAY));
      return Math.floor((y * 12 + m - 1 - first) / p.interval);
    },
    startOf: (k) => dayNumber(Math.floor(monthOf(k) / 12), (monthOf(k) % 12) + 1, 1) * DAY,
    at: (k) => {
      const m = (monthOf(k) % 12) + 1;
      if (p.byMonth.length > 0 && !p.byMonth.includes(m)) return [];
      return timed(p, daysOfMonth(p, Math.floor(monthOf(k) / 12), m));
    },
    next: one,
  };
}

const isLeap = (year: number): boolean => (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
const monthLength = (year: number, month: number): number =>
  month === 2 ? (isLeap(year) ? 29 : 28) : [4, 6, 9, 11].includes(month) ? 30 : 31;

/** The days of a month (as day numbers) that a monthly or yearly rule means, in order. */
function daysOfMonth(p: Parts, year: number, month: number): number[] {
  const first = dayNumber(year, month, 1);
  const length = monthLength(year, month);
  // In a yearly rule without months, a weekday's number counts within the year.
  const inYear = p.freq === 'YEARLY' && p.byMonth.length === 0;
  const january = dayNumber(year, 1, 1);
  const yearLength = isLeap(year) ? 366 : 365;
  const found: number[] = [];
  for (let d = 1; d <= length; d++) {
    const day = first + d - 1;
    if (p.byMonthDay.length > 0 && !p.byMonthDay.includes(d) && !p.byMonthDay.includes(d - length - 1)) continue;
    const yd = day - january + 1;
    if (p.byYearDay.length > 0 && !p.byYearDay.includes(yd) && !p.byYearDay.includes(yd - yearLength - 1)) continue;
    if (p.byDay.length > 0 && !meansWeekday(p, day, inYear ? yd : d, inYear ? yearLength : length)) continue;
    found.push(day);
  }
  return found;
}

/** Whether BYDAY means a day that is the `at`th of a span of `length` days. */
function meansWeekday(p: Parts, day: number, at: number, length: number): boolean {
  const weekday = weekdayOfDay(day);
  const nth = Math.floor((at - 1) / 7) + 1;
  const last = -(Math.floor((length - at) / 7) + 1);
  return p.byDay.some((d) => d.day === weekday && (d.nth === 0 || d.nth === nth || d.nth === last));
}

/** Years of numbered weeks: week 1 holds the year's fourth of January, so that no week is in two of them. */
function weekYears(p: Parts, startWall: number): Periods {
  const startOfWeek = (day: number) => day - ((weekdayOfDay(day) - p.weekStart + 7) % 7);
  const weekOne = (year: number) => startOfWeek(dayNumber(year, 1, 4));
  const weekYearOf = (day: number) => {
    const [year] = civil(day);
    return day < weekOne(year) ? year - 1 : day >= weekOne(year + 1) ? year + 1 : year;
  };
  const first = weekYearOf(Math.floor(startWall / DAY));
  const yearOf = (k: number) => first + k * p.interval;
  return {
    indexAt: (wall) => Math.floor((weekYearOf(Math.floor(wall / DAY)) - first) / p.interval),
    startOf: (k) => weekOne(yearOf(k)) * DAY,
    at: (k) => {
      const from = weekOne(yearOf(k));
      const until = weekOne(yearOf(k) + 1);
      const weeks = (until - from) / 7;
      const found: number[] = [];
      for (let week = 1; week <= weeks; week++) {
        if (!p.byWeekNo.includes(week) && !p.byWeekNo.includes(week - weeks - 1)) continue;
        for (let i = 0; i < 7; i++) {
          const day = from + (week - 1) * 7 + i;
          if (meansDay(p, day)) found.push(day);
        }
      }
      return timed(p, found);
    },
    next: one,
  };
}

function weeks(p: Parts, startWall: number): Periods {
  const start = Math.floor(startWall / DAY);
  const first = start - ((weekdayOfDay(start) - p.weekStart + 7) % 7);
  const dayOf = (k: number) => first + k * p.interval * 7;
  return {
    indexAt: (wall) => Math.floor((Math.floor(wall / DAY) - first) / (p.interval * 7)),
    startOf: (k) => dayOf(k) * DAY,
    at: (k) => {
      const found: number[] = [];
      for (let i = 0; i < 7; i++) if (meansDay(p, dayOf(k) + i)) found.push(dayOf(k) + i);
      return timed(p, found);
    },
    next: one,
  };
}

function days(p: Parts, startWall: number): Periods {
  const first = Math.floor(startWall / DAY);
  const dayOf = (k: number) => first + k * p.interval;
  return {
    indexAt: (wall) => Math.floor((Math.floor(wall / DAY) - first) / p.interval),
    startOf: (k) => dayOf(k) * DAY,
    at: (k) => (meansDay(p, dayOf(k)) ? timed(p, [dayOf(k)]) : NONE),
    next: one,
  };
}

const NONE: readonly number[] = [];

/** Whether a day passes every part that speaks of days, each as a limit. */
function meansDay(p: Parts, day: number): boolean {
  if (p.byDay.length > 0 && !p.byDay.some((d) => d.day === weekdayOfDay(day))) return false;
  if (p.byMonth.length === 0 && p.byMonthDay.length === 0 && p.byYearDay.length === 0) return true;
  const [year, month, d] = civil(day);
  if (p.byMonth.length > 0 && !p.byMonth.includes(month)) return false;
  if (p.byMonthDay.length > 0 && !p.byMonthDay.includes(d) && !p.byMonthDay.includes(d - monthLength(year, month) - 1))
    return false;
  if (p.byYearDay.length === 0) return true;
  const yd = day - dayNumber(year, 1, 1) + 1;
  return p.byYearDay.includes(yd) || p.byYearDay.includes(yd - (isLeap(year) ? 366 : 365) - 1);
}

/** Every time of day of every day, in order. */
function timed(p: Parts, list: readonly number[]): number[] {
  const found: number[] = [];
  for (const day of list)
    for (const hour of p.byHour)
      for (const minute of p.byMinute)
        for (const second of p.bySecond) found.push(day * DAY + hour * HOUR + minute * MINUTE + second * 1000);
  return found;
}

/** Periods shorter than a day. A day or an hour that is not meant is passed over in one step. */
function within(p: Parts, startWall: number, unit: number): Periods {
  const first = Math.floor(startWall / unit) * unit;
  const at = (k: number) => first + k * p.interval * unit;
  const meansHour = (wall: number) =>
    p.byHour.length === 0 || p.byHour.includes(Math.floor((wall - Math.floor(wall / DAY) * DAY) / HOUR));
  const from = (k: number, wall: number) => Math.max(k + 1, Math.ceil((wall - first) / (p.interval * unit)));
  return {
    indexAt: (wall) => Math.floor((wall - first) / (p.interval * unit)),
    startOf: at,
    at: (k) => {
      const wall = at(k);
      if (!meansDay(p, Math.floor(wall / DAY)) || !meansHour(wall)) return NONE;
      if (unit === HOUR) return p.byMinute.flatMap((m) => p.bySecond.map((s) => wall + m * MINUTE + s * 1000));
      const minute = Math.floor(wall / MINUTE) % 60;
      if (p.byMinute.length > 0 && !p.byMinute.includes(minute)) return NONE;
      return p.bySecond.map((s) => wall + s * 1000);
    },
    next: (k) => {
      const day = Math.floor(at(k) / DAY);
      if (!meansDay(p, day)) return from(k, (day + 1) * DAY);
      if (!meansHour(at(k))) return from(k, (Math.floor(at(k) / HOUR) + 1) * HOUR);
      return k + 1;
    },
  };
}
