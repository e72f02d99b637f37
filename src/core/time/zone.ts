// Not the package's main entry: that takes whatever Temporal the process has, which may know fewer clock changes.
import { Temporal } from 'temporal-polyfill/implementation';

interface Span {
  readonly from: number;
  readonly until: number;
  readonly offset: number;
}

/** A zone that a calendar file defined itself: the offset before everything, then each change. Milliseconds, in order. */
export interface ZoneDefinition {
  readonly before: number;
  readonly changes: readonly (readonly [instant: number, offset: number])[];
}

/** Definitions held at a time, the latest used; and zones of the database whose offsets are held. */
const MOST_DEFINED = 500;
const MOST_SPANS = 700;
const defined = new Map<string, ZoneDefinition>();
let source: (name: string) => ZoneDefinition | null = () => null;

/** Holds something at the end of a map; what was used longest ago goes where there are more than `most`. */
function hold<T>(map: Map<string, T>, most: number, name: string, value: T): void {
  map.delete(name);
  map.set(name, value);
  for (const oldest of map.keys()) {
    if (map.size <= most) break;
    map.delete(oldest);
  }
}

/**
 * Makes a zone of a file's own known under a name, which begins with `~` and stands for just this definition (made of its
 * digest): a name never means two things. Nobody can type such a name: `isZone` refuses it. Of all that are known the latest 500 are held.
 */
export const defineZone = (name: string, definition: ZoneDefinition): void =>
  hold(defined, MOST_DEFINED, name, definition);

/** Where definitions are kept: asked for one that isn't held. */
export function zonesFrom(saved: (name: string) => ZoneDefinition | null): void {
  source = saved;
}

/** A definition by its name; `null` where nobody made one known. */
function definitionBy(name: string): ZoneDefinition | null {
  const held = defined.get(name);
  if (held) return held;
  const saved = source(name);
  if (saved) defineZone(name, saved);
  return saved;
}

/** Whether a zone of a file's own is known by a name. */
export const isDefined = (name: string): boolean => definitionBy(name) !== null;

/** The change of a definition that is in force at an instant; -1 before the first. */
function changeAt({ changes }: ZoneDefinition, instant: number): number {
  let low = 0;
  let high = changes.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((changes[middle] as readonly [number, number])[0] <= instant) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

const known = new Map<string, boolean>();
const spans = new Map<string, Span[]>();

/** Whether a name is a zone of the time zone database this machine has (`Europe/Lisbon`, `UTC`); offsets are refused. */
export function isZone(name: string): boolean {
  let answer = known.get(name);
  if (answer === undefined) {
    try {
      Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(name);
      answer = /^[A-Za-z]/.test(name);
    } catch {
      answer = false;
    }
    if (known.size < 5000) known.set(name, answer);
  }
  return answer;
}

/** The zone's offset from UTC at an instant, in milliseconds. Throws a RangeError for a name that `isZone` refuses. */
export function offsetAt(zone: string, instant: number): number {
  if (zone.startsWith('~')) {
    const definition = definitionBy(zone);
    if (!definition) throw new RangeError('a zone that nobody defined');
    const change = definition.changes[changeAt(definition, instant)];
    return change ? change[1] : definition.before;
  }
  let list = spans.get(zone);
  if (!list) {
    list = [];
    hold(spans, MOST_SPANS, zone, list);
  }
  for (const span of list) if (span.from <= instant && instant < span.until) return span.offset;
  const at = Temporal.Instant.fromEpochMilliseconds(instant).toZonedDateTimeISO(zone);
  const next = at.getTimeZoneTransition('next');
  const span = {
    from: instant,
    until: next ? next.epochMilliseconds : Number.POSITIVE_INFINITY,
    offset: at.offsetNanoseconds / 1e6,
  };
  const before = at.add({ nanoseconds: 1 }).getTimeZoneTransition('previous');
  const whole = { ...span, from: before ? before.epochMilliseconds : Number.NEGATIVE_INFINITY };
  list.unshift(whole);
  if (list.length > 400) list.pop();
  return whole.offset;
}

/** The wall-clock time that a zone shows at an instant, in milliseconds as if it were UTC. */
export function toWall(zone: string, instant: number): number {
  return instant + offsetAt(zone, instant);
}

/**
 * The instant at which a zone's clocks show a wall-clock time. Where clocks go back and it comes twice, the first;
 * where they go forward and it never comes, `null` (RFC 5545 3.3.10 asks that such a repeat be skipped).
 */
export function fromWall(zone: string, wall: number): number | null {
  const early = wall - offsetAt(zone, wall - 86_400_000);
  if (toWall(zone, early) === wall) return early;
  const late = wall - offsetAt(zone, wall + 86_400_000);
  return toWall(zone, late) === wall ? late : null;
}

/** Like `fromWall`, but a time that never comes is moved on by the length of the gap (RFC 5545 3.3.5). */
export function fromWallLenient(zone: string, wall: number): number {
  return fromWall(zone, wall) ?? wall - offsetAt(zone, wall - 86_400_000);
}

/** The instants in `[from, until)` at which a zone's offset changes, at most `budget` of them. */
export function transitions(zone: string, from: number, until: number, budget: number): number[] {
  const found: number[] = [];
  if (zone.startsWith('~')) {
    const changes = definitionBy(zone)?.changes ?? [];
    return changes.flatMap(([at]) => (at >= from && at < until ? [at] : [])).slice(0, budget);
  }
  let at = Temporal.Instant.fromEpochMilliseconds(from).toZonedDateTimeISO(zone);
  while (found.length < budget) {
    const next = at.getTimeZoneTransition('next');
    if (!next || next.epochMilliseconds >= until) break;
    found.push(next.epochMilliseconds);
    at = next;
  }
  return found;
}
