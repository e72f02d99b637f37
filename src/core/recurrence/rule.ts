import { RRuleTemporal } from 'rrule-temporal';
import { Temporal } from 'temporal-polyfill';
import { parseDate, parseWall, toWall, wallText } from '../time/index.ts';

/** Why a rule can't be kept. */
export type RuleProblem = 'ruleUnreadable' | 'ruleTooOften' | 'ruleInterval' | 'ruleTooMany' | 'ruleNeverHappens';

/** A rule in one normal form: parts in a fixed order, an end in UTC turned into the wall clock of the item's zone. */
export interface Rule {
  readonly kind: 'rule';
  readonly text: string;
}

const PARTS = [
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
const FREQUENCIES = new Set(['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY']);
const TOO_OFTEN = new Set(['HOURLY', 'MINUTELY', 'SECONDLY']);
const MOST_A_DAY = 8;
const MOST_COUNT = 5000;
const LONGEST_RULE = 500;
const DAY = 86_400_000;

/**
 * Reads the value of an RRULE (RFC 5545 3.3.10) for an item that starts at `startWall` (wall-clock milliseconds) in
 * `zone`. Refused are rules by the hour or oftener, intervals below 1, more than 5,000 counted times, and rules that
 * give no date in the ten years after the start.
 */
export function readRule(text: string, startWall: number, zone: string): Rule | { kind: 'problem'; code: RuleProblem } {
  const parts = split(text);
  if (!parts) return problem('ruleUnreadable');
  const freq = parts.get('FREQ') ?? '';
  if (TOO_OFTEN.has(freq)) return problem('ruleTooOften');
  if (!FREQUENCIES.has(freq)) return problem('ruleUnreadable');
  const aDay = ['BYHOUR', 'BYMINUTE', 'BYSECOND'].reduce((n, p) => n * (parts.get(p)?.split(',').length ?? 1), 1);
  if (aDay > MOST_A_DAY) return problem('ruleTooOften');
  const interval = Number(parts.get('INTERVAL') ?? 1);
  if (!Number.isInteger(interval) || interval < 1 || interval > 1000) return problem('ruleInterval');
  if (parts.has('COUNT')) {
    const count = Number(parts.get('COUNT'));
    if (!Number.isInteger(count) || count < 1) return problem('ruleUnreadable');
    if (count > MOST_COUNT) return problem('ruleTooMany');
    if (parts.has('UNTIL')) return problem('ruleUnreadable');
  }
  const until = parts.get('UNTIL');
  if (until !== undefined) {
    const wall = untilWall(until, zone);
    if (wall === null) return problem('ruleUnreadable');
    parts.set('UNTIL', compact(wall));
  }
  const normal = PARTS.filter((p) => parts.has(p))
    .map((p) => `${p}=${parts.get(p)}`)
    .join(';');
  const rule: Rule = { kind: 'rule', text: normal };
  try {
    const found = wallStarts(rule, startWall, startWall - 1, startWall + 3653 * DAY, 2, false);
    if (found.length === 0) return problem('ruleNeverHappens');
  } catch {
    return problem(/BYSETPOS|BYWEEKNO|BYYEARDAY|BYMONTH/.test(normal) ? 'ruleNeverHappens' : 'ruleUnreadable');
  }
  return rule;
}

function problem(code: RuleProblem): { kind: 'problem'; code: RuleProblem } {
  return { kind: 'problem', code };
}

function split(text: string): Map<string, string> | null {
  const parts = new Map<string, string>();
  if (text.length > LONGEST_RULE) return null;
  for (const part of text.trim().toUpperCase().split(';')) {
    if (part === '') continue;
    const [key, value, ...rest] = part.split('=');
    if (!key || !value || rest.length > 0 || parts.has(key)) return null;
    if (!(PARTS as readonly string[]).includes(key) || !/^[A-Z0-9,+-]+$/.test(value)) return null;
    parts.set(key, value);
  }
  return parts;
}

function untilWall(text: string, zone: string): number | null {
  const m = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})(Z?))?$/.exec(text);
  if (!m) return null;
  const day = parseDate(`${m[1]}-${m[2]}-${m[3]}`);
  if (day === null) return null;
  if (m[4] === undefined) return day + DAY - 1000;
  const wall = parseWall(`${m[1]}-${m[2]}-${m[3]}T${m[4]}:${m[5]}:${m[6]}`);
  if (wall === null) return null;
  return m[7] ? toWall(zone, wall) : wall;
}

const compact = (wall: number): string => `${wallText(wall).replace(/[-:]/g, '')}Z`;

const compiled = new Map<string, RRuleTemporal>();

/**
 * The wall-clock starts of a rule in `[from, to)`, the series' own start included, at most `budget` of them. The rule runs
 * in UTC on the wall clock, so that no zone's pauses can disturb it. Throws where the rule finds no date within bounds.
 */
export function wallStarts(
  rule: Rule,
  startWall: number,
  from: number,
  to: number,
  budget: number,
  withStart = true,
): number[] {
  const key = `${startWall}|${withStart}|${rule.text}`;
  let r = compiled.get(key);
  if (!r) {
    r = new RRuleTemporal({
      rruleString: `DTSTART:${compact(startWall)}\nRRULE:${rule.text}`,
      includeDtstart: withStart,
      maxIterations: 20_000,
      cache: false,
    });
    if (compiled.size > 500) compiled.clear();
    compiled.set(key, r);
  }
  const found: number[] = [];
  const at = (ms: number) => Temporal.Instant.fromEpochMilliseconds(ms).toZonedDateTimeISO('UTC');
  for (let cursor = from; cursor < to && found.length < budget; ) {
    // By the year, so that a far range of a daily rule never builds more than it may give.
    const stop = Math.min(to, cursor + 366 * DAY);
    for (const z of r.between(at(cursor), at(stop - 1), true)) {
      const ms = z.epochMilliseconds;
      if (ms >= cursor && ms < stop && found.length < budget) found.push(ms);
    }
    cursor = stop;
  }
  return found;
}
