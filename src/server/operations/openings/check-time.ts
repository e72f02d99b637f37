import type { ItemWire } from '@/contract/items/items.ts';
import type { CheckAnswer, CheckBody } from '@/contract/openings/openings.ts';
import { mayRun } from '@/core/access/index.ts';
import { takesTime } from '@/core/calendar/index.ts';
import {
  brokenPreferences,
  findOpenings,
  journeyMinutes,
  type OpeningsPerson,
  samePlace,
} from '@/core/openings/index.ts';
import { fromWallLenient, instantText } from '@/core/time/index.ts';
import { allJourneys, type JourneyRow } from '../../repositories/journeys.ts';
import { personById } from '../../repositories/people.ts';
import { ok, type Result } from '../../result.ts';
import { aboutItem, type Context, findCalendar, isRefusal } from '../deciding/index.ts';
import { readWhen } from '../items/index.ts';
import { viewedPeople, viewedPerson } from './viewed-people.ts';

const MINUTE = 60_000;
const DAY = 86_400_000;
/** People that are looked at, days around a time, clashes and openings that are said. */
const MOST_PEOPLE = 20;
const AHEAD_DAYS = 14;
const MOST_CLASHES = 5;
const OPENINGS = 3;

/**
 * What speaks against a time in a calendar: what blocks it, a journey too long for the gap, the owner's hours; and the nearest times that work
 * for all who must be there. From what the asker sees and nothing else: of whoever isn't known nothing counts, and they are named.
 */
export function checkTime(ctx: Context, key: string, body: CheckBody): Result<CheckAnswer> {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const when = readWhen(body.when);
  if (isRefusal(when)) return when;
  const owner = personById(ctx.db, decided.calendar.ownerId);
  const none = { fits: false, clashes: [], openings: [], unknown: [], cut: false };
  // Saying where somebody is, or what is free, takes nobody's time.
  if (!owner || !takesTime(body)) return ok(none);
  const own = aboutItem(ctx, body.item);
  const length = Math.max(1, Math.round((when.end - when.start) / MINUTE));
  const [from, to] = [Math.max(ctx.now, when.start - 2 * DAY), when.start + AHEAD_DAYS * DAY];
  const begin = Math.min(from, when.start - DAY);
  const me = viewedPerson(ctx, owner, decided, 'must', begin, to, own);
  const others = body.people.filter((p) => p.must && p.address !== owner.address).slice(0, MOST_PEOPLE);
  const { people: rest, unknown } = viewedPeople(ctx, others, begin, to, own);
  const people = [me, ...rest];
  const journeys = allJourneys(ctx.db);
  const clashes = when.allDay ? [] : clashesOf(journeys, me, when.start, when.end, body.place);
  const zone = owner.zone;
  const request = {
    now: Math.floor(ctx.now / MINUTE),
    from: Math.ceil(from / MINUTE),
    until: Math.floor(to / MINUTE),
    length,
    grid: 15,
    zone,
    notice: 0,
    tentative: 'blocks' as const,
    within: 'hours' as const,
    padBefore: 0,
    padAfter: 0,
    place: body.place,
    at: [],
  };
  // Somebody's wishes are read by them and by who arranges for them.
  const { decision } = decided;
  if (!when.allDay && mayRun(decision).arrange)
    for (const { kind, hard } of brokenPreferences(me, request, when.start / MINUTE, when.end / MINUTE).slice(
      0,
      MOST_CLASHES,
    ))
      clashes.push({ kind: 'keep', keep: kind, hard });
  const found =
    when.allDay || (clashes.length === 0 && others.length === 0)
      ? { starts: [], cut: false }
      : findOpenings(request, people, journeys);
  const works = found.starts.includes(when.start / MINUTE);
  const openings = works ? [] : nearest(found.starts, when.start / MINUTE, length);
  return ok({
    fits: !when.allDay && clashes.length === 0 && (others.length === 0 || works),
    clashes,
    openings: openings.map((s) => ({ start: instantText(s * MINUTE), end: instantText((s + length) * MINUTE) })),
    unknown,
    cut: found.cut || people.some((one) => one.cut) || body.people.filter((p) => p.must).length > MOST_PEOPLE,
  });
}

function clashesOf(
  journeys: readonly JourneyRow[],
  me: OpeningsPerson & { views: readonly ItemWire[] },
  start: number,
  end: number,
  place: string | null,
): CheckAnswer['clashes'] {
  const clashes: CheckAnswer['clashes'] = [];
  const blocking = me.views.filter(takesTime);
  for (const v of blocking) {
    const [from, to] = v.allDay
      ? [fromWallLenient(me.zone, Date.parse(v.start)), fromWallLenient(me.zone, Date.parse(v.end))]
      : [Date.parse(v.start), Date.parse(v.end)];
    if (from < end && to > start && clashes.length < MOST_CLASHES)
      clashes.push({
        kind: 'overlap',
        title: v.title ?? null,
        withheld: v.withheld === true,
        allDay: v.allDay,
        start: instantText(from),
        end: instantText(to),
      });
  }
  const here = samePlace(place);
  if (here !== '') {
    const travel = journeyMinutes(journeys);
    const placed = blocking.filter((v) => !v.allDay && v.place?.trim());
    const last = placed
      .filter((v) => Date.parse(v.end) <= start)
      .sort((a, b) => Date.parse(b.end) - Date.parse(a.end))[0];
    const next = placed
      .filter((v) => Date.parse(v.start) >= end)
      .sort((a, b) => Date.parse(a.start) - Date.parse(b.start))[0];
    for (const [v, before, gap] of [
      [last, true, last ? (start - Date.parse(last.end)) / MINUTE : 0],
      [next, false, next ? (Date.parse(next.start) - end) / MINUTE : 0],
    ] as const) {
      const there = v?.place?.trim() ?? '';
      const needed = travel(samePlace(there), here);
      if (v && needed > gap) clashes.push({ kind: 'journey', place: there, before, minutes: needed, gap });
    }
  }
  if (me.hours !== null && !isWithin(me.hours, me.zone, start, end)) clashes.push({ kind: 'hours' });
  return clashes;
}

/** Whether a time lies inside somebody's hours: no opening of its own length could begin there otherwise. */
function isWithin(hours: NonNullable<OpeningsPerson['hours']>, zone: string, start: number, end: number): boolean {
  const person = { id: '', need: 'must' as const, known: false, zone, hours, keeps: [], items: [] };
  const at = start / MINUTE;
  const length = Math.max(1, Math.round((end - start) / MINUTE));
  const request = { now: at, from: at, until: at + length, length, grid: 1, zone: 'UTC', notice: 0 };
  const rest = {
    tentative: 'blocks' as const,
    within: 'hours' as const,
    padBefore: 0,
    padAfter: 0,
    place: null,
    at: [],
  };
  return findOpenings({ ...request, ...rest }, [person]).starts.length > 0;
}

/** The nearest few starts, none of which overlaps another. */
function nearest(starts: readonly number[], at: number, length: number): number[] {
  const chosen: number[] = [];
  for (const s of [...starts].sort((a, b) => Math.abs(a - at) - Math.abs(b - at) || a - b)) {
    if (chosen.every((other) => Math.abs(other - s) >= length)) chosen.push(s);
    if (chosen.length === OPENINGS) break;
  }
  return chosen.sort((a, b) => a - b);
}
