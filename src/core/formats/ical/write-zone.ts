import { civil, EARLIEST, offsetAt, transitions, wallText, weekdayOfDay } from '../../time/index.ts';

const DAY = 86_400_000;
const YEAR = 366 * DAY;
/** Changes are looked at as far as the year 2100; what holds until then is written as holding for ever. */
const FAR_ENOUGH = 4_102_444_800_000;
const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
/** Years in a row that must follow one rule before it is written as going on for ever. */
const STEADY = 30;

interface Change {
  readonly at: number;
  readonly from: number;
  readonly to: number;
}

/**
 * A named zone's VTIMEZONE (RFC 5545 3.6.5), from a year before an instant on and for ever: changes by their dates, and, from where
 * they follow one rule a year, that rule.
 */
export function zoneLines(zone: string, from: number): string[] {
  // By the decade, so that the same few definitions are made again and again, and kept.
  const begin = Math.max(Math.floor((from - YEAR) / (10 * YEAR)) * 10 * YEAR, EARLIEST);
  const key = `${zone} ${begin}`;
  const lines = known.get(key) ?? linesFrom(zone, begin);
  if (known.size > 500) known.clear();
  known.set(key, lines);
  return lines;
}

const known = new Map<string, string[]>();

function linesFrom(zone: string, begin: number): string[] {
  const changes = changesFrom(zone, begin);
  const rules = yearlyRules(changes);
  const steadyFrom = rules ? Math.min(...rules.map((r) => r.first.at)) : Number.POSITIVE_INFINITY;
  const offsets = [offsetAt(zone, begin), ...changes.map((c) => c.to)];
  const winter = Math.min(...offsets);
  const observance = ({ at, from: before, to }: Change, rule: string | null): string[] => {
    const kind = to > winter ? 'DAYLIGHT' : 'STANDARD';
    return [
      `BEGIN:${kind}`,
      `DTSTART:${compact(at + before)}`,
      ...(rule === null ? [] : [`RRULE:${rule}`]),
      `TZOFFSETFROM:${offsetText(before)}`,
      `TZOFFSETTO:${offsetText(to)}`,
      `END:${kind}`,
    ];
  };
  const first = { at: begin, from: offsetAt(zone, begin), to: offsetAt(zone, begin) };
  return [
    'BEGIN:VTIMEZONE',
    `TZID:${zone}`,
    ...observance(first, null),
    ...changes.filter((c) => c.at < steadyFrom).flatMap((c) => observance(c, null)),
    ...(rules ?? []).flatMap((r) => observance(r.first, r.rule)),
    'END:VTIMEZONE',
  ];
}

function changesFrom(zone: string, begin: number): Change[] {
  let before = offsetAt(zone, begin);
  return transitions(zone, begin, FAR_ENOUGH, 700).map((at) => {
    const change = { at, from: before, to: offsetAt(zone, at) };
    before = change.to;
    return change;
  });
}

/** The yearly rules that the changes follow from some year on to the last one; `null` where they come to an end or follow none. */
function yearlyRules(changes: readonly Change[]): { first: Change; rule: string }[] | null {
  const last = changes.at(-1);
  if (!last || last.at < FAR_ENOUGH - 2 * YEAR) return null;
  const byKind = new Map<string, Change[]>();
  for (const c of changes) {
    const kind = `${c.from} ${c.to}`;
    byKind.set(kind, [...(byKind.get(kind) ?? []), c]);
  }
  const found: { first: Change; rule: string }[] = [];
  for (const list of byKind.values()) {
    const end = list.at(-1) as Change;
    // A kind of change that no longer comes is written by its dates.
    if (end.at < FAR_ENOUGH - 2 * YEAR) continue;
    const rule = ruleOf(list);
    if (!rule) return null;
    found.push(rule);
  }
  // Everything after the rules begin must be theirs.
  const from = Math.max(...found.map((r) => r.first.at));
  const steady = found.map((r) => firstAfter(byKind, r, from));
  const explained = changes.filter((c) => c.at >= Math.min(...steady.map((r) => r.first.at)));
  const kinds = new Set(found.map((r) => `${r.first.from} ${r.first.to}`));
  return explained.every((c) => kinds.has(`${c.from} ${c.to}`)) ? steady : null;
}

/** The same rule, begun with its last change before all of the rules are in force. */
function firstAfter(
  byKind: ReadonlyMap<string, readonly Change[]>,
  rule: { first: Change; rule: string },
  from: number,
) {
  const list = byKind.get(`${rule.first.from} ${rule.first.to}`) ?? [];
  return { ...rule, first: list.find((c) => c.at >= from) ?? rule.first };
}

function ruleOf(list: readonly Change[]): { first: Change; rule: string } | null {
  const described = list.map((c) => ({ change: c, ...describe(c) }));
  const end = described.at(-1) as (typeof described)[number];
  for (const wanted of end.rules) {
    let start = described.length - 1;
    while (
      start > 0 &&
      described[start - 1]?.year === (described[start]?.year as number) - 1 &&
      described[start - 1]?.rules.includes(wanted) &&
      described[start - 1]?.time === end.time
    )
      start--;
    const first = described[start] as (typeof described)[number];
    if (end.year - first.year >= STEADY) return { first: first.change, rule: wanted };
  }
  return null;
}

/** How a change's date can be said: the nth weekday of its month, or the last. */
function describe({ at, from }: Change): { year: number; time: number; rules: string[] } {
  const local = at + from;
  const days = Math.floor(local / DAY);
  const [year, month, day] = civil(days);
  const weekday = WEEKDAYS[weekdayOfDay(days)];
  const isLast = civil(days + 7)[1] !== month;
  const rule = (nth: number) => `FREQ=YEARLY;BYMONTH=${month};BYDAY=${nth}${weekday}`;
  const rules = [rule(Math.floor((day - 1) / 7) + 1)];
  if (isLast) rules.unshift(rule(-1));
  return { year, time: local - days * DAY, rules };
}

const compact = (ms: number): string => wallText(ms).replace(/[-:]/g, '');

function offsetText(ms: number): string {
  const seconds = Math.abs(Math.round(ms / 1000));
  const two = (n: number) => String(n).padStart(2, '0');
  const rest = seconds % 60 === 0 ? '' : two(seconds % 60);
  return `${ms < 0 ? '-' : '+'}${two(Math.floor(seconds / 3600))}${two(Math.floor(seconds / 60) % 60)}${rest}`;
}
