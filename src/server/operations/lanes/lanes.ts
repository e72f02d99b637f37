import type { z } from 'zod';
import { type Lane, type laneBody, MOST_LANES, type saveLanesBody } from '@/contract/lanes.ts';
import { newKey } from '../../ids.ts';
import {
  type Calendar,
  calendarById,
  calendarByKey,
  calendarsForGroups,
  mainCalendarOf,
} from '../../repositories/calendars.ts';
import { calendarsNaming } from '../../repositories/grants.ts';
import { groupByKey, groupsOf, membersOf } from '../../repositories/groups.ts';
import { lanesOf, type StoredLane, saveLane } from '../../repositories/lanes.ts';
import { personByHandle, personById } from '../../repositories/people.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, decideOn } from '../deciding/index.ts';

const DONE = { done: true } as const;
/** The people's colours there are. */
const COLOURS = 6;

interface Standing {
  readonly calendar: Calendar;
  readonly lane: StoredLane | null;
  /** It was made for a group of theirs. */
  readonly theirs: boolean;
  readonly sight: Lane['sight'];
  readonly heading: StoredLane['heading'];
}

/**
 * The lanes of the viewer, in their order. Their own calendar, those they run and those made for a group of theirs stand among them
 * without being kept, until they take them out; those of groups are shown at once. Keeping one gives nothing: what may be seen of each is
 * decided each time, and of one that may not be only its head is there.
 */
export function listLanes(ctx: Context): { lanes: Lane[] } {
  return { lanes: standing(ctx).flatMap((s) => wireOf(ctx, s) ?? []) };
}

function standing(ctx: Context): Standing[] {
  const saved = lanesOf(ctx.db, ctx.viewer.id);
  const known = new Set(saved.map((lane) => lane.calendarId));
  const own = mainCalendarOf(ctx.db, ctx.viewer.id);
  const ofGroups = calendarsForGroups(ctx.db, groupsOf(ctx.db, ctx.viewer.id)).map((calendar) => calendar.id);
  const byThemselves = [...(own ? [own.id] : []), ...calendarsNaming(ctx.db, ctx.viewer.id), ...ofGroups].filter(
    (id, i, all) => !known.has(id) && all.indexOf(id) === i,
  );
  const look = (calendarId: number, lane: StoredLane | null): Standing[] => {
    const calendar = calendarById(ctx.db, calendarId);
    if (!calendar) return [];
    const { rights, owner } = decideOn(ctx, calendar).decision;
    const runs = owner || rights.add || rights.change !== 'none';
    // A calendar made for a group of theirs stands there as long as they see anything of it.
    const theirs = ofGroups.includes(calendarId) && rights.sight !== 'nothing';
    if (lane === null && !theirs && (!runs || !calendar.main)) return [];
    return [{ calendar, lane, theirs, sight: rights.sight, heading: runs ? 'run' : 'look' }];
  };
  return [
    ...byThemselves.flatMap((id) => look(id, null)),
    ...saved.filter((lane) => !lane.removed).flatMap((lane) => look(lane.calendarId, lane)),
  ].slice(0, MOST_LANES);
}

/** In which colour a lane is shown: one's own for it, else its owner's. */
const colourOf =
  (ctx: Context) =>
  ({ calendar, lane }: Pick<Standing, 'calendar' | 'lane'>): number =>
    lane?.colour ?? (personById(ctx.db, calendar.ownerId)?.colour ?? 0) % COLOURS;

function wireOf(ctx: Context, { calendar, lane, theirs, sight, heading }: Standing): Lane | null {
  const owner = personById(ctx.db, calendar.ownerId);
  // Whoever is outside knows only of those they see.
  if (!owner || (sight === 'nothing' && !ctx.viewer.inside)) return null;
  const seen = sight !== 'nothing';
  return {
    key: lane?.key ?? `c:${calendar.key}`,
    calendar: seen ? calendar.key : null,
    owner: { handle: owner.handle, name: owner.name },
    // What a further calendar is called is for whoever sees anything of it.
    of: calendar.main || !seen ? null : calendar.name,
    name: lane?.name ?? null,
    colour: colourOf(ctx)({ calendar, lane }),
    sight,
    heading,
    moved: lane !== null && lane.heading !== heading,
    shown: lane?.shown ?? theirs,
    own: owner.id === ctx.viewer.id,
  };
}

/**
 * Keeps calendars as lanes, shown from now on: the main ones of people, of everybody in a group, or calendars by their keys. Of people in
 * the directory also where nothing is seen of them; there the lane is its head. What one doesn't know of is answered as what isn't there.
 */
export function saveLanes(
  ctx: Context,
  body: z.infer<typeof saveLanesBody>,
): Result<{ kept: number; already: number }> {
  const wanted: Calendar[] = [];
  for (const handle of body.people) {
    const person = personByHandle(ctx.db, handle);
    const calendar = person && mainCalendarOf(ctx.db, person.id);
    if (!calendar || !mayKnow(ctx, calendar)) return refuse('notFound');
    wanted.push(calendar);
  }
  if (body.group !== null) {
    const group = ctx.viewer.inside ? groupByKey(ctx.db, body.group) : null;
    if (!group) return refuse('notFound');
    const members = membersOf(ctx.db, group.id);
    if (members.length > MOST_LANES) return refuse('tooManyLanes', { facts: { most: MOST_LANES } });
    wanted.push(...members.flatMap((id) => mainCalendarOf(ctx.db, id) ?? []));
  }
  for (const key of body.calendars) {
    const calendar = calendarByKey(ctx.db, key);
    if (!calendar || decideOn(ctx, calendar).decision.rights.sight === 'nothing') return refuse('notFound');
    wanted.push(calendar);
  }
  return ctx.db.write(() => {
    const saved = lanesOf(ctx.db, ctx.viewer.id);
    const by = new Map(saved.map((lane) => [lane.calendarId, lane]));
    const fresh = wanted.filter((c, i) => wanted.findIndex((other) => other.id === c.id) === i);
    const count = saved.filter((lane) => !lane.removed).length;
    if (count + fresh.filter((c) => by.get(c.id)?.removed !== false).length > MOST_LANES)
      return refuse('tooManyLanes', { facts: { most: MOST_LANES } });
    let place = Math.max(0, ...saved.map((lane) => lane.place));
    let added = 0;
    const taken = new Set(standing(ctx).map(colourOf(ctx)));
    for (const calendar of fresh) {
      const before = by.get(calendar.id);
      if (before && !before.removed && before.shown) continue;
      added++;
      const lane = laneFor(ctx, calendar, before ?? null);
      // Two people on one board are told apart as long as there are colours: who comes later gets one that nobody has there.
      const theirs = colourOf(ctx)({ calendar, lane });
      const free = Array.from({ length: COLOURS }, (_, one) => one).find((one) => !taken.has(one));
      const colour = before || !taken.has(theirs) || free === undefined ? lane.colour : free;
      taken.add(colour ?? theirs);
      saveLane(ctx.db, {
        ...lane,
        colour,
        shown: true,
        removed: false,
        ...(before && !before.removed ? {} : { place: ++place }),
      });
    }
    return ok({ kept: added, already: fresh.length - added });
  });
}

/** Whether somebody may know that a calendar is there: everybody inside knows of those in the directory; else only of what they see. */
function mayKnow(ctx: Context, calendar: Calendar): boolean {
  const owner = personById(ctx.db, calendar.ownerId);
  if (ctx.viewer.inside && owner?.inside && owner.leftAt === null) return true;
  return decideOn(ctx, calendar).decision.rights.sight !== 'nothing';
}

function laneFor(ctx: Context, calendar: Calendar, before: StoredLane | null): StoredLane {
  const { rights, owner } = decideOn(ctx, calendar).decision;
  const heading = owner || rights.add || rights.change !== 'none' ? 'run' : 'look';
  const fresh = { name: null, colour: null, place: 0, shown: false, removed: false };
  const whose = { key: newKey(), personId: ctx.viewer.id, calendarId: calendar.id };
  return { ...whose, ...fresh, ...before, heading };
}

/** One of one's lanes by its key: a kept one, or (`c:`) one that stands there by itself. */
function findLane(ctx: Context, key: string): { calendar: Calendar; lane: StoredLane | null } | null {
  const found = standing(ctx).find((s) => (s.lane ? s.lane.key === key : `c:${s.calendar.key}` === key));
  return found ?? null;
}

/** One's own name and colour for a lane, whether it is shown, and that one has seen where it stands. Nobody else is concerned. */
export function changeLane(ctx: Context, key: string, body: z.infer<typeof laneBody>): Result<typeof DONE> {
  return ctx.db.write(() => {
    const found = findLane(ctx, key);
    if (!found) return refuse('notFound');
    const standingLane = laneFor(ctx, found.calendar, found.lane);
    const { name, colour, shown, looked } = body;
    saveLane(ctx.db, {
      ...standingLane,
      heading: looked || !found.lane ? standingLane.heading : found.lane.heading,
      ...(name === undefined ? {} : { name: name || null }),
      ...(colour === undefined ? {} : { colour }),
      ...(shown === undefined ? {} : { shown }),
    });
    return ok(DONE);
  });
}

/** Takes a lane out of one's list. What one may see stays as it is, and it can be kept again. */
export function dropLane(ctx: Context, key: string): Result<typeof DONE> {
  return ctx.db.write(() => {
    const found = findLane(ctx, key);
    if (!found) return refuse('notFound');
    saveLane(ctx.db, { ...laneFor(ctx, found.calendar, found.lane), shown: false, removed: true });
    return ok(DONE);
  });
}

/** Puts one's lanes in an order; those that aren't named stand behind. */
export function orderLanes(ctx: Context, keys: readonly string[]): Result<typeof DONE> {
  return ctx.db.write(() => {
    const all = standing(ctx).map((s) => ({ ...s, key: s.lane?.key ?? `c:${s.calendar.key}` }));
    const rank = (key: string) => (keys.includes(key) ? keys.indexOf(key) : keys.length);
    const ordered = [...all].sort((a, b) => rank(a.key) - rank(b.key));
    for (const [place, { calendar, lane }] of ordered.entries())
      saveLane(ctx.db, {
        ...laneFor(ctx, calendar, lane),
        ...(lane ? { heading: lane.heading } : {}),
        place: place + 1,
      });
    return ok(DONE);
  });
}
