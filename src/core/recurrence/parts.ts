import { parseDate, parseWall, toWall, wallText } from '../time/index.ts';

/** Why a rule can't be kept. */
export type RuleProblem =
  | 'ruleUnreadable'
  | 'rulePart'
  | 'ruleTooOften'
  | 'ruleInterval'
  | 'ruleTooMany'
  | 'ruleNeverHappens';

type Frequency = 'MINUTELY' | 'HOURLY' | 'DAILY' | 'WEEKLY' | 'MONTHLY' | 'YEARLY';

/** A weekday of a BYDAY part, Monday 0; `nth` counts from the start or (negative) the end, 0 is every one. */
interface ByDay {
  readonly nth: number;
  readonly day: number;
}

/** The parts of an RRULE, read; an empty list is an absent part. `until` is wall-clock milliseconds, included. */
export interface Parts {
  readonly freq: Frequency;
  readonly interval: number;
  readonly count: number | null;
  readonly until: number | null;
  readonly weekStart: number;
  readonly byMonth: readonly number[];
  readonly byWeekNo: readonly number[];
  readonly byYearDay: readonly number[];
  readonly byMonthDay: readonly number[];
  readonly byDay: readonly ByDay[];
  readonly byHour: readonly number[];
  readonly byMinute: readonly number[];
  readonly bySecond: readonly number[];
  readonly bySetPos: readonly number[];
}

const NAMES = [
  'FREQ',
  'INTERVAL',
  'COUNT',
  'UNTIL',
  'WKST',
  'BYMONTH',
  'BYWEEKNO',
  'BYYEARDAY',
  'BYMONTHDAY',
  'BYDAY',
  'BYHOUR',
  'BYMINUTE',
  'BYSECOND',
  'BYSETPOS',
] as const;
const FREQUENCIES = new Set(['MINUTELY', 'HOURLY', 'DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY']);
const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
const MOST_COUNT = 5000;
const LONGEST_RULE = 500;
const DAY = 86_400_000;

class Wrong extends Error {
  constructor(readonly code: RuleProblem) {
    super(code);
  }
}

/**
 * Reads the value of an RRULE (RFC 5545 3.3.10) by its grammar and by the table of which parts may stand together. `zone` is the clock that
 * an end in UTC is converted to. Answers the parts and the rule in its normal form, or why it can't be kept: `rulePart` for an unknown part,
 * or a part of RFC 7529 with anything but its plain meaning.
 */
export function readParts(text: string, zone: string): { parts: Parts; text: string } | RuleProblem {
  try {
    const parts = partsOf(split(text), zone);
    return { parts, text: normalText(parts) };
  } catch (error) {
    if (error instanceof Wrong) return error.code;
    throw error;
  }
}

function split(text: string): Map<string, string> {
  const found = new Map<string, string>();
  if (text.length > LONGEST_RULE) throw new Wrong('ruleUnreadable');
  for (const part of text.trim().toUpperCase().split(';')) {
    if (part === '') continue;
    const [key, value, ...rest] = part.split('=');
    if (!key || !value || rest.length > 0 || found.has(key)) throw new Wrong('ruleUnreadable');
    // Each part of RFC 7529 with its default value means the same as the rule without it.
    if ((key === 'RSCALE' && value === 'GREGORIAN') || (key === 'SKIP' && value === 'OMIT')) continue;
    if (!(NAMES as readonly string[]).includes(key))
      throw new Wrong(/^[A-Z-]+$/.test(key) ? 'rulePart' : 'ruleUnreadable');
    found.set(key, value);
  }
  return found;
}

function partsOf(raw: Map<string, string>, zone: string): Parts {
  const freq = raw.get('FREQ') ?? '';
  if (freq === 'SECONDLY') throw new Wrong('ruleTooOften');
  if (!FREQUENCIES.has(freq)) throw new Wrong('ruleUnreadable');
  const interval = whole(raw.get('INTERVAL') ?? '1');
  if (interval < 1 || interval > 1000) throw new Wrong('ruleInterval');
  let count: number | null = null;
  if (raw.has('COUNT')) {
    count = whole(raw.get('COUNT') as string);
    if (count < 1 || raw.has('UNTIL')) throw new Wrong('ruleUnreadable');
    if (count > MOST_COUNT) throw new Wrong('ruleTooMany');
  }
  const until = raw.has('UNTIL') ? untilWall(raw.get('UNTIL') as string, zone) : null;
  const list = (name: string, most: number, least: number, negative = false): number[] =>
    (raw.get(name)?.split(',') ?? []).map((text) => {
      const n = whole(text);
      if (Math.abs(n) > most || (negative ? n === 0 : n < least)) throw new Wrong('ruleUnreadable');
      return n;
    });
  const weekStart = WEEKDAYS.indexOf(raw.get('WKST') ?? 'MO');
  if (weekStart < 0) throw new Wrong('ruleUnreadable');
  const parts: Parts = {
    freq: freq as Frequency,
    interval,
    count,
    until,
    weekStart,
    byMonth: sorted(list('BYMONTH', 12, 1)),
    byWeekNo: list('BYWEEKNO', 53, 1, true),
    byYearDay: list('BYYEARDAY', 366, 1, true),
    byMonthDay: list('BYMONTHDAY', 31, 1, true),
    byDay: (raw.get('BYDAY')?.split(',') ?? []).map(weekday),
    byHour: sorted(list('BYHOUR', 23, 0)),
    byMinute: sorted(list('BYMINUTE', 59, 0)),
    // A leap second is the last one that clocks show.
    bySecond: sorted(list('BYSECOND', 60, 0).map((s) => Math.min(s, 59))),
    bySetPos: list('BYSETPOS', 366, 1, true),
  };
  standTogether(parts);
  return parts;
}

/** What the grammar's table forbids beside what. */
function standTogether(p: Parts): void {
  const nth = p.byDay.some((d) => d.nth !== 0);
  const any = [p.byMonth, p.byWeekNo, p.byYearDay, p.byMonthDay, p.byDay, p.byHour, p.byMinute, p.bySecond];
  const wrong =
    (p.byWeekNo.length > 0 && p.freq !== 'YEARLY') ||
    (p.byYearDay.length > 0 && ['DAILY', 'WEEKLY', 'MONTHLY'].includes(p.freq)) ||
    (p.byMonthDay.length > 0 && p.freq === 'WEEKLY') ||
    (nth && !['MONTHLY', 'YEARLY'].includes(p.freq)) ||
    (nth && p.byWeekNo.length > 0) ||
    (p.bySetPos.length > 0 && any.every((list) => list.length === 0));
  if (wrong) throw new Wrong('ruleUnreadable');
}

function whole(text: string): number {
  if (!/^[+-]?\d{1,9}$/.test(text)) throw new Wrong('ruleUnreadable');
  return Number(text);
}

const sorted = (list: number[]): number[] => [...new Set(list)].sort((a, b) => a - b);

function weekday(text: string): ByDay {
  const m = /^([+-]?\d{1,2})?(MO|TU|WE|TH|FR|SA|SU)$/.exec(text);
  const nth = Number(m?.[1] ?? 0);
  if (!m || Math.abs(nth) > 53 || (m[1] !== undefined && nth === 0)) throw new Wrong('ruleUnreadable');
  return { nth, day: WEEKDAYS.indexOf(m[2] as string) };
}

function untilWall(text: string, zone: string): number {
  const m = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})(Z?))?$/.exec(text);
  const day = m && parseDate(`${m[1]}-${m[2]}-${m[3]}`);
  if (!m || day === null) throw new Wrong('ruleUnreadable');
  if (m[4] === undefined) return day + DAY - 1000;
  const wall = parseWall(`${m[1]}-${m[2]}-${m[3]}T${m[4]}:${m[5]}:${m[6] === '60' ? '59' : m[6]}`);
  if (wall === null) throw new Wrong('ruleUnreadable');
  return m[7] ? toWall(zone, wall) : wall;
}

const compact = (wall: number): string => wallText(wall).replace(/[-:]/g, '');

/** The rule in its normal form: parts in a fixed order, an end on the wall clock (RFC 5545's local time, without Z), so that it reads as itself. */
export function normalText(p: Parts): string {
  const values: Record<(typeof NAMES)[number], string> = {
    FREQ: p.freq,
    INTERVAL: p.interval === 1 ? '' : String(p.interval),
    COUNT: p.count === null ? '' : String(p.count),
    UNTIL: p.until === null ? '' : compact(p.until),
    WKST: p.weekStart === 0 ? '' : (WEEKDAYS[p.weekStart] as string),
    BYMONTH: p.byMonth.join(','),
    BYWEEKNO: p.byWeekNo.join(','),
    BYYEARDAY: p.byYearDay.join(','),
    BYMONTHDAY: p.byMonthDay.join(','),
    BYDAY: p.byDay.map((d) => `${d.nth === 0 ? '' : d.nth}${WEEKDAYS[d.day]}`).join(','),
    BYHOUR: p.byHour.join(','),
    BYMINUTE: p.byMinute.join(','),
    BYSECOND: p.bySecond.join(','),
    BYSETPOS: p.bySetPos.join(','),
  };
  return NAMES.flatMap((name) => (values[name] === '' ? [] : [`${name}=${values[name]}`])).join(';');
}
