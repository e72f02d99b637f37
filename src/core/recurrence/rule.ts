import { fromWall } from '../time/index.ts';
import { type Generated, generate } from './generate.ts';
import { type Parts, type RuleProblem, readParts } from './parts.ts';

export type { RuleProblem } from './parts.ts';

/** A rule in one normal form: parts in a fixed order, an end in UTC turned into the wall clock of the item's zone. */
export interface Rule {
  readonly kind: 'rule';
  readonly text: string;
}

const DAY = 86_400_000;
/** A rule may give an occurrence an hour; looked at over a month from the start. */
const MOST_IN_A_MONTH = 31 * 24;
const TEN_YEARS = 3653 * DAY;
const always = (): boolean => true;

/**
 * Reads the value of an RRULE for an item that starts at `startWall` (wall-clock milliseconds) in `zone`, `null` where all day. Refused are rules by
 * the second and those that give more than one occurrence an hour over a month, intervals below 1 or above 1,000, more than 5,000
 * counted times, parts beyond RFC 5545, and rules that give no date in the ten years after the start.
 */
export function readRule(
  text: string,
  startWall: number,
  zone: string | null,
): Rule | { kind: 'problem'; code: RuleProblem } {
  // What is all day has no times of day: parts that name some are passed over (RFC 5545 3.3.10).
  const dated = zone === null ? text.replace(/;?\s*BY(?:HOUR|MINUTE|SECOND)=[^;]*/gi, '') : text;
  const read = readParts(dated.replace(/^;/, ''), zone ?? 'UTC');
  if (typeof read === 'string') return { kind: 'problem', code: read };
  const { parts } = read;
  if (zone === null && (parts.freq === 'HOURLY' || parts.freq === 'MINUTELY'))
    return { kind: 'problem', code: 'ruleTooOften' };
  const first = generate({ ...parts, count: null }, startWall, startWall, startWall + TEN_YEARS, 1, always, true);
  if (first.walls.length === 0) return { kind: 'problem', code: 'ruleNeverHappens' };
  const month = generate(parts, startWall, startWall, startWall + 31 * DAY, MOST_IN_A_MONTH, always);
  if (month.cut) return { kind: 'problem', code: 'ruleTooOften' };
  return { kind: 'rule', text: read.text };
}

const compiled = new Map<string, Parts>();

function partsOf(rule: Rule): Parts {
  let parts = compiled.get(rule.text);
  if (!parts) {
    const read = readParts(rule.text, 'UTC');
    if (typeof read === 'string') throw new RangeError(`not a rule that was read: ${rule.text}`);
    parts = read.parts;
    if (compiled.size > 2000) compiled.clear();
    compiled.set(rule.text, parts);
  }
  return parts;
}

/** The wall-clock starts of a rule in `[from, to)`, DTSTART aside, at most `budget`; `zone` is `null` for all-day items. */
export function wallStarts(
  rule: Rule,
  startWall: number,
  from: number,
  to: number,
  budget: number,
  zone: string | null,
): Generated {
  const exists = zone === null || zone === 'UTC' ? always : (wall: number) => fromWall(zone, wall) !== null;
  return generate(partsOf(rule), startWall, from, to, budget, exists);
}

/**
 * The wall-clock starts that the text of a rule gives from its start on and before `to`, the start included; none where the text
 * is no rule. For rules that are not an item's: those of a zone's definition.
 */
export function ruleStarts(text: string, startWall: number, to: number, budget: number): readonly number[] {
  const read = readParts(text, 'UTC');
  return typeof read === 'string' ? [] : generate(read.parts, startWall, startWall, to, budget, always, true).walls;
}
