import { civil } from '../time/index.ts';
import { generate } from './generate.ts';
import { normalText, type Parts, readParts } from './parts.ts';
import type { Rule } from './rule.ts';

const DAY = 86_400_000;
const always = (): boolean => true;

const partsOf = (rule: Rule): Parts => {
  const read = readParts(rule.text, 'UTC');
  if (typeof read === 'string') throw new RangeError(`not a rule that was read: ${rule.text}`);
  return read.parts;
};

/**
 * The rule of a series whose start moves by `shift` milliseconds on the wall clock: its days move along, and so does its end. `null` where
 * the rule names days or times that don't simply move with it (a week of the year, a place in a set, more than one day of a month).
 */
export function shiftedRule(rule: Rule, startWall: number, shift: number): string | null {
  const parts = partsOf(rule);
  const until = parts.until === null ? null : parts.until + shift;
  const days = Math.floor((startWall + shift) / DAY) - Math.floor(startWall / DAY);
  const named = parts.byHour.length + parts.byMinute.length + parts.bySecond.length > 0;
  if (named && shift % DAY !== 0) return null;
  if (days === 0) return normalText({ ...parts, until });
  const { byMonth, byWeekNo, byYearDay, bySetPos, byMonthDay, byDay } = parts;
  if (byMonth.length + byWeekNo.length + byYearDay.length + bySetPos.length > 0) return null;
  const was = civil(Math.floor(startWall / DAY));
  const is = civil(Math.floor((startWall + shift) / DAY));
  const monthDay = moveMonthDay(byMonthDay, was[2], is[2]);
  const weekday = moveWeekdays(parts, days, is);
  if (monthDay === null || weekday === null || (byMonthDay.length > 0 && byDay.length > 0)) return null;
  return normalText({ ...parts, until, byMonthDay: monthDay, byDay: weekday });
}

function moveMonthDay(days: readonly number[], was: number, is: number): readonly number[] | null {
  if (days.length === 0) return days;
  return days.length === 1 && days[0] === was ? [is] : null;
}

type Civil = ReturnType<typeof civil>;

function moveWeekdays({ freq, byDay }: Parts, days: number, is: Civil): Parts['byDay'] | null {
  const turned = byDay.map((d) => ({ ...d, day: (((d.day + days) % 7) + 7) % 7 }));
  if (freq === 'WEEKLY' || freq === 'DAILY' || byDay.every((d) => d.nth === 0))
    return turned.sort((a, b) => a.day - b.day);
  const [only, ...more] = turned;
  if (freq !== 'MONTHLY' || !only || more.length > 0) return null;
  // Counted from the month's start it is that one of the new day; from its end it stays where it was only within the last week.
  if (only.nth > 0) return [{ ...only, nth: Math.ceil(is[2] / 7) }];
  const length = daysOf(is[0], is[1]);
  return [{ ...only, nth: -Math.ceil((length - is[2] + 1) / 7) }];
}

function daysOf(year: number, month: number): number {
  const leap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
  return [31, leap ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][month - 1] ?? 31;
}

/** The rule of what a series has before a wall time: it ends just before that. */
export const ruleBefore = (rule: Rule, wall: number): string =>
  normalText({ ...partsOf(rule), count: null, until: wall - 1000 });

/** The rule of what a series has from one of its wall times on: counted, what came before is counted off. */
export function ruleFrom(rule: Rule, startWall: number, wall: number): string {
  const parts = partsOf(rule);
  if (parts.count === null) return rule.text;
  const before = generate(parts, startWall, startWall, wall, parts.count, always, true).walls.length;
  return normalText({ ...parts, count: Math.max(1, parts.count - before) });
}
