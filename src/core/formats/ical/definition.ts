import { ruleStarts } from '../../recurrence/index.ts';
import {
  EARLIEST,
  LATEST,
  offsetAt,
  parseDate,
  parseWall,
  transitions,
  wallText,
  type ZoneDefinition,
} from '../../time/index.ts';
import { insideOf, type Property } from './property.ts';

const SECOND = 1000;
/** Onsets one observance may have; twice a year for three hundred years is 600. */
const MOST_ONSETS = 1500;
const MOST_OBSERVANCES = 400;

/** Of which times a definition tells: from its first change to its last, or without an end where one of its rules has none. */
interface Covered {
  readonly first: number;
  readonly last: number;
}

/** A definition longer than this, or with more changes, is none that can be kept. */
const MOST_TEXT = 60_000;
const MOST_CHANGES = 2000;

/**
 * What a VTIMEZONE (RFC 5545 3.6.5) says of its clocks, from 1900 to 2200: the offset before everything and each change. `null`
 * where it says nothing that can be used.
 */
export function definitionOf(text: string): (ZoneDefinition & { readonly covers: Covered }) | null {
  if (text.length > MOST_TEXT) return null;
  const onsets: { at: number; from: number; to: number }[] = [];
  let goesOn = false;
  for (const part of insideOf(text).parts.slice(0, MOST_OBSERVANCES)) {
    if (!/^BEGIN:(STANDARD|DAYLIGHT)\s*\r\n/i.test(part)) continue;
    const { properties } = insideOf(part);
    const saidOf = (name: string) => properties.find((p) => p.name === name)?.value ?? '';
    const from = offsetOf(saidOf('TZOFFSETFROM'));
    const to = offsetOf(saidOf('TZOFFSETTO'));
    const start = localOf(saidOf('DTSTART'));
    if (from === null || to === null || start === null) return null;
    goesOn ||= properties.some((p) => p.name === 'RRULE' && !/(?:UNTIL|COUNT)=/i.test(p.value));
    for (const local of localOnsets(properties, start, from)) onsets.push({ at: local - from, from, to });
  }
  if (onsets.length === 0) return null;
  onsets.sort((a, b) => a.at - b.at);
  let before = onsets[0]?.from as number;
  const changes: [number, number][] = [];
  for (const { at, to } of onsets) {
    if (at < EARLIEST) before = to;
    else if (at < LATEST && (changes.at(-1)?.[1] ?? before) !== to) changes.push([at, to]);
  }
  if (changes.length > MOST_CHANGES) return null;
  const covers = {
    first: onsets[0]?.at as number,
    last: goesOn ? Number.POSITIVE_INFINITY : (onsets.at(-1)?.at as number),
  };
  return { before, changes, covers };
}

/**
 * A definition that tells of some years only, with a named zone's clock for all others: before its first change, and after its last one
 * from the zone's own next change on.
 */
export function filledUp(definition: ZoneDefinition & { readonly covers: Covered }, zone: string): ZoneDefinition {
  const { before, changes, covers } = definition;
  const { first, last } = covers;
  const next = Number.isFinite(last) ? (transitions(zone, last, LATEST, 1)[0] ?? LATEST) : LATEST;
  const named = (from: number, until: number) =>
    from < until
      ? transitions(zone, from, until, MOST_CHANGES).map((at): [number, number] => [at, offsetAt(zone, at)])
      : [];
  const atFirst: [number, number] = [first, changes.findLast(([at]) => at <= first)?.[1] ?? before];
  const own = changes.filter(([at]) => at > first && at < next);
  const all: [number, number][] = [];
  const begin = offsetAt(zone, EARLIEST);
  for (const [at, to] of [...named(EARLIEST, first), atFirst, ...own, ...named(next - 1, LATEST)])
    if (at >= EARLIEST && (all.at(-1)?.[1] ?? begin) !== to) all.push([at, to]);
  return { before: first < EARLIEST ? atFirst[1] : begin, changes: all };
}

function localOnsets(properties: readonly Property[], start: number, offsetFrom: number): number[] {
  const found = new Set([start]);
  for (const p of properties) {
    if (p.name === 'RDATE')
      for (const text of p.value.split(',')) {
        const local = localOf(text.split('/')[0] ?? '');
        if (local !== null) found.add(text.includes('Z') ? local + offsetFrom : local);
      }
    if (p.name === 'RRULE')
      for (const local of ruleStarts(onLocalClock(p.value, offsetFrom), start, LATEST, MOST_ONSETS)) found.add(local);
  }
  return [...found];
}

/** A rule whose end, given in UTC, is put on the clock that runs until the change. */
function onLocalClock(rule: string, offsetFrom: number): string {
  return rule.replace(/UNTIL=(\d{8}T\d{6})Z/i, (whole, text: string) => {
    const at = localOf(text);
    return at === null ? whole : `UNTIL=${compactText(at + offsetFrom)}`;
  });
}

const compactText = (ms: number): string => wallText(ms).replace(/[-:]/g, '');

function offsetOf(text: string): number | null {
  const m = /^([+-])(\d{2}):?(\d{2})(?::?(\d{2}))?$/.exec(text.trim());
  if (!m) return null;
  const seconds = Number(m[2]) * 3600 + Number(m[3]) * 60 + Number(m[4] ?? 0);
  return (m[1] === '-' ? -1 : 1) * seconds * SECOND;
}

/** Wall-clock milliseconds of `20270302T100000` or `20270302`. */
function localOf(text: string): number | null {
  const m = /^(\d{4})(\d{2})(\d{2})(?:T(\d{2})(\d{2})(\d{2})Z?)?$/.exec(text.trim());
  if (!m) return null;
  const date = `${m[1]}-${m[2]}-${m[3]}`;
  return m[4] === undefined ? parseDate(date) : parseWall(`${date}T${m[4]}:${m[5]}:${m[6] === '60' ? '59' : m[6]}`);
}

const DECADE = 3653 * 86_400_000;
/** What goes on for ever is held against a named zone as far as the year 2100. */
const FAR_ENOUGH = 4_102_444_800_000;
type Spans = readonly (readonly [from: number, until: number])[];
const known = new Map<string, Spans>();

/** The spans of time, from the decade of an instant on, in which a named zone shows something else than a definition. Worked out once. */
function disagreements(name: string, definition: ZoneDefinition, zone: string, from: number): Spans {
  const begin = Math.floor(from / DECADE) * DECADE;
  const key = `${name} ${zone} ${begin}`;
  const found = known.get(key);
  if (found) return found;
  const edges = new Set([begin, ...transitions(zone, begin, FAR_ENOUGH, 1000)]);
  for (const [at] of definition.changes) if (at > begin && at < FAR_ENOUGH) edges.add(at);
  const sorted = [...edges].sort((a, b) => a - b);
  const spans = sorted.flatMap((at, i): [number, number][] =>
    offsetAt(zone, at) === offsetAt(name, at) ? [] : [[at, sorted[i + 1] ?? Number.POSITIVE_INFINITY]],
  );
  if (known.size > 2000) known.clear();
  known.set(key, spans);
  return spans;
}

/** Whether a named zone shows what a definition says at every instant of `[from, until]`; looked at as far as the year 2100. */
export function agrees(name: string, definition: ZoneDefinition, zone: string, from: number, until: number): boolean {
  const last = Math.min(until, FAR_ENOUGH - 1);
  if (offsetAt(zone, from) !== offsetAt(name, from) || offsetAt(zone, last) !== offsetAt(name, last)) return false;
  return !disagreements(name, definition, zone, from).some(([a, b]) => a <= last && b > from);
}
