import type { z } from 'zod';
import type {
  TimesAnswer,
  TimesDayAnswer,
  TimesSeriesAnswer,
  timesBody,
  timesSeriesBody,
} from '@/contract/openings/openings.ts';
import {
  findOpenings,
  findSeriesOpenings,
  howManyCan,
  type OpeningsRequest,
  rankRuns,
  roomFor,
  samePlace,
  WEIGHTS,
} from '@/core/openings/index.ts';
import { dateText, fromWallLenient, instantText, isZone, parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { allJourneys } from '../../repositories/journeys.ts';
import { personByAddress, personById, roomsWith } from '../../repositories/people.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  type About,
  aboutItem,
  type Context,
  type Decided,
  decideOn,
  findCalendar,
  isRefusal,
} from '../deciding/index.ts';
import { type ViewedPerson, viewedPeople, viewedPerson } from './viewed-people.ts';

const MINUTE = 60_000;
const DAY = 86_400_000;
const DAY_MINUTES = 1440;
const MOST_RUNS = 60;
const MOST_IN_LANE = 100;

type Body = z.infer<typeof timesBody>;

/** A search made ready for the viewer: who comes, as they see them, and when it may be. */
export interface TimesSearch {
  readonly decided: Decided;
  readonly people: readonly ViewedPerson[];
  readonly unknown: readonly string[];
  readonly journeys: ReturnType<typeof allJourneys>;
  /** Not all of what somebody has could be read. */
  readonly cut: boolean;
  /** The item that is asked about, whose copies take nobody's time. */
  readonly item: About;
  readonly request: OpeningsRequest;
  readonly nameOf: (id: string) => string;
  readonly text: (minute: number) => string;
}

/** Reads who is asked about a calendar's owner and others, over the days of a search and so many around them. */
export function timesSearch(ctx: Context, key: string, body: Body, around = 0): TimesSearch | Refusal {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const owner = personById(ctx.db, decided.calendar.ownerId);
  const first = parseDate(body.from);
  if (!isZone(body.zone)) return refuse('badInput', { fields: { zone: 'zone' } });
  if (!owner || first === null) return refuse('badInput', { fields: { from: 'date' } });
  const from = fromWallLenient(body.zone, first);
  const until = fromWallLenient(body.zone, first + body.days * DAY);
  const [since, till] = [from - around * DAY, until + around * DAY];
  const item = aboutItem(ctx, body.item);
  const me = viewedPerson(ctx, owner, decided, 'must', since, till, item);
  const others = body.people.filter((p) => p.address !== owner.address);
  const viewed = viewedPeople(ctx, others, since, till, item);
  return {
    decided,
    people: [me, ...viewed.people],
    unknown: viewed.unknown,
    cut: [me, ...viewed.people].some((one) => one.cut),
    journeys: allJourneys(ctx.db),
    item,
    request: {
      now: Math.ceil(ctx.now / MINUTE),
      from: Math.ceil(from / MINUTE),
      until: Math.floor(until / MINUTE),
      length: body.length,
      grid: 15,
      zone: body.zone,
      notice: 0,
      tentative: body.tentative,
      within: body.within,
      padBefore: body.padding,
      padAfter: body.padding,
      place: body.place,
      at: body.there ? [owner.address] : [],
    },
    nameOf: (id) => personByAddress(ctx.db, id)?.name ?? id,
    text: (minute) => instantText(minute * MINUTE),
  };
}

/** Rooms that are searched for one that would do. */
const MOST_ROOMS = 40;

/** The rooms that would do and that the viewer sees anything of, the smallest that is large enough first, and whether there are more. */
export function roomsFor(
  ctx: Context,
  search: TimesSearch,
  body: Body,
): { rooms: ViewedPerson[] | null; cut: boolean } {
  if (body.room === null) return { rooms: null, cut: false };
  const { seats, site } = body.room;
  const at = samePlace(site);
  const { from, until } = search.request;
  const fitting = roomsWith(ctx.db, seats).filter((room) => at === '' || samePlace(room.site) === at);
  const rooms: ViewedPerson[] = [];
  for (const room of fitting) {
    const calendar = mainCalendarOf(ctx.db, room.id);
    const on = calendar && decideOn(ctx, calendar);
    if (!on || on.decision.rights.sight === 'nothing') continue;
    if (rooms.length === MOST_ROOMS) return { rooms, cut: true };
    rooms.push(
      viewedPerson(ctx, room, on, 'must', (from - DAY_MINUTES) * MINUTE, (until + DAY_MINUTES) * MINUTE, search.item),
    );
  }
  return { rooms, cut: rooms.some((room) => room.cut) };
}

/** The openings of a search, and the room each could be had in where any is asked for. */
function openingsOf(
  search: Pick<TimesSearch, 'request' | 'people' | 'journeys'>,
  rooms: readonly ViewedPerson[] | null,
): { starts: readonly number[]; cut: boolean; roomAt: ReadonlyMap<number, string> | null } {
  const { request, people, journeys } = search;
  const { starts, cut } = findOpenings(request, people, journeys);
  if (rooms === null) return { starts, cut, roomAt: null };
  const roomAt = roomFor(request, starts, rooms, journeys);
  return { starts: starts.filter((start) => roomAt.has(start)), cut, roomAt };
}

/**
 * Times that work for whoever has to be there, best first, each with its reasons; where none does, the least that would have to give, each
 * with how many times it would open. From what the asker sees and nothing else.
 */
export function findTimes(ctx: Context, key: string, body: Body): Result<TimesAnswer> {
  const search = timesSearch(ctx, key, body);
  if (isRefusal(search)) return search;
  const { people, unknown, request, nameOf, text } = search;
  const { rooms, cut } = roomsFor(ctx, search, body);
  const found = openingsOf(search, rooms);
  const turned = { sooner: 'late', kinder: 'gap', more: 'cannot' } as const;
  const weights = { ...WEIGHTS };
  for (const wish of body.wishes) weights[turned[wish]] *= 3;
  for (const wish of body.less) weights[turned[wish]] /= 3;
  const roomAt = (start: number) => found.roomAt?.get(start);
  const runs = rankRuns(request, people, found.starts, people[0]?.id ?? '', weights, roomAt);
  const [next] = found.starts;
  return ok({
    runs: runs.slice(0, MOST_RUNS).map((run) => {
      const room = roomAt(run.from);
      return {
        from: text(run.from),
        to: text(run.to),
        end: text(run.from + body.length),
        room: room === undefined ? null : { name: nameOf(room), address: room },
        reasons: run.reasons.map((r) => ({ ...r, who: nameOf(r.who) })),
      };
    }),
    count: found.starts.length,
    next: next === undefined ? null : text(next),
    known: people.filter((one) => one.known).length,
    sheet: body.sheet ? sheetOf(request, people) : [],
    rooms: rooms === null ? null : rooms.length,
    unknown: [...unknown],
    gives: found.starts.length > 0 ? [] : leastToGive(search, rooms),
    cut: found.cut || search.cut || cut || runs.length > MOST_RUNS,
  });
}

/** How many can come, by date and quarter of an hour of the asker's clock; what a clock change leaves out is -1, what comes twice its first. */
function sheetOf(request: OpeningsRequest, people: readonly ViewedPerson[]): TimesAnswer['sheet'] {
  const { steps, can } = howManyCan(request, people);
  const days = new Map<string, number[]>();
  for (const [i, step] of steps.entries()) {
    const wall = toWall(request.zone, step * MINUTE);
    const date = dateText(wall);
    let day = days.get(date);
    if (!day) {
      day = new Array<number>(DAY_MINUTES / request.grid).fill(-1);
      days.set(date, day);
    }
    const at = Math.floor((((wall % DAY) + DAY) % DAY) / (request.grid * MINUTE));
    if (day[at] === -1) day[at] = can[i] ?? 0;
  }
  return [...days].map(([date, list]) => ({ date, can: list }));
}

/** The first day of a search as the asker sees it: a lane for everybody asked. */
export function readTimesDay(ctx: Context, key: string, body: Body): Result<TimesDayAnswer> {
  const search = timesSearch(ctx, key, { ...body, days: 1 });
  if (isRefusal(search)) return search;
  const { from, until } = search.request;
  let cut = search.cut;
  const lanes: TimesDayAnswer['lanes'] = search.people.map((one) => {
    const views = one.views.filter((view) => overlaps(view, one.zone, from * MINUTE, until * MINUTE));
    cut ||= views.length > MOST_IN_LANE;
    return {
      name: one.name,
      address: one.id,
      colour: one.colour % 6,
      must: one.need === 'must',
      sight: one.sight,
      zone: one.zone,
      items: views.slice(0, MOST_IN_LANE).map((view) => ({
        start: view.start,
        end: view.end,
        title: view.title ?? null,
        shows: view.shows,
        withheld: view.withheld === true,
        whereabouts: view.kind === 'whereabouts',
      })),
    };
  });
  const there = new Set(lanes.map((lane) => lane.name));
  for (const name of search.unknown)
    if (!there.has(name))
      lanes.push({ name, address: '', colour: 0, must: true, sight: 'nothing', zone: body.zone, items: [] });
  return ok({ lanes, cut });
}

function overlaps(view: ViewedPerson['views'][number], zone: string, from: number, until: number): boolean {
  const at = (text: string) => {
    const date = view.allDay ? parseDate(text) : null;
    return date === null ? (parseInstant(text) ?? 0) : fromWallLenient(zone, date);
  };
  return at(view.start) < until && at(view.end) > from;
}

/** Starts of a first week that work most often when they repeat every so many weeks. From what the asker sees and nothing else. */
export function findSeriesTimes(
  ctx: Context,
  key: string,
  body: z.infer<typeof timesSeriesBody>,
): Result<TimesSeriesAnswer> {
  const days = (body.times - 1) * body.every * 7 + 8;
  const search = timesSearch(ctx, key, { ...body, days });
  if (isRefusal(search)) return search;
  const { people, unknown, journeys, request, nameOf, text } = search;
  const found = findSeriesOpenings(request, people, journeys, body.every, body.times);
  return ok({
    starts: found.starts.slice(0, MOST_RUNS).map(({ start, fits, fails }) => ({
      start: text(start),
      end: text(start + body.length),
      fits,
      fails: fails.map(({ at, who }) => ({ at: text(at), who: who.map(nameOf) })),
    })),
    unknown: [...unknown],
    cut: found.cut || search.cut || found.starts.length > MOST_RUNS,
  });
}

/** What opens a time where nothing fits: one fewer who must, over what is tentative, outside hours, half as long, without a room. */
function leastToGive(search: TimesSearch, rooms: readonly ViewedPerson[] | null): TimesAnswer['gives'] {
  const { request, people, nameOf, text } = search;
  const gives: TimesAnswer['gives'] = [];
  const attempt = (
    what: TimesAnswer['gives'][number]['what'],
    who: string | null,
    change: Partial<OpeningsRequest>,
    list = people,
    had = rooms,
  ) => {
    const { starts } = openingsOf({ ...search, request: { ...request, ...change }, people: list }, had);
    const [first] = starts;
    if (first !== undefined)
      gives.push({
        what,
        who: who && nameOf(who),
        address: what === 'without' ? who : null,
        count: starts.length,
        first: text(first),
      });
  };
  if (request.tentative === 'blocks') attempt('tentative', null, { tentative: 'counts' });
  if (request.within === 'hours') attempt('hours', null, { within: 'any' });
  if (request.padBefore > 0) attempt('padding', null, { padBefore: 0, padAfter: 0 });
  if (request.length >= 30) attempt('half', null, { length: Math.ceil(request.length / 30) * 15 });
  if (rooms !== null) attempt('room', null, {}, people, null);
  if (request.at.length > 0) attempt('there', request.at[0] ?? '', { at: [] });
  for (const one of people.slice(1))
    if (one.need === 'must')
      attempt(
        'without',
        one.id,
        {},
        people.map((p) => (p === one ? { ...p, need: 'may' as const } : p)),
      );
  return gives;
}
