import { z } from 'zod';
import { KINDS, LIMITS, SIGHTS, STATUSES } from '@/core/calendar/index.ts';
import { when } from '../items/items.ts';
import { MOST_SERIES_WEEKS } from '../mosts.ts';
import { at, type Routes } from '../route.ts';

const place = z.string().trim().max(LIMITS.place);

/** A time for an item that isn't saved yet: who has to be there, where it is, and which item it is where it stands already. */
export const checkBody = z.strictObject({
  when,
  item: z.string().max(128).nullable().default(null),
  people: z
    .array(z.strictObject({ address: z.string().trim().toLowerCase().max(LIMITS.address), must: z.boolean() }))
    .max(LIMITS.invited)
    .default([]),
  place: place.nullable().default(null),
  shows: z.enum(STATUSES).default('busy'),
  kind: z.enum(KINDS).default('meeting'),
});
export type CheckBody = z.infer<typeof checkBody>;

const span = { start: z.string(), end: z.string() };
/** What speaks against a time: warned of, never forbidden. */
const clash = z.discriminatedUnion('kind', [
  /** Something blocks it; `title` as far as it is seen. */
  z.strictObject({
    kind: z.literal('overlap'),
    title: z.string().nullable(),
    withheld: z.boolean(),
    allDay: z.boolean(),
    ...span,
  }),
  /** The gap to what comes before or after is shorter than the journey. */
  z.strictObject({
    kind: z.literal('journey'),
    place: z.string(),
    before: z.boolean(),
    minutes: z.number(),
    gap: z.number(),
  }),
  z.strictObject({ kind: z.literal('hours') }),
  /** It breaks a standing wish of the owner: of which kind, and whether they hold to it. */
  z.strictObject({ kind: z.literal('keep'), keep: z.enum(['span', 'rest', 'most', 'pause']), hard: z.boolean() }),
]);
const checkAnswer = z.strictObject({
  /** Nothing that is seen speaks against it: said where it could be looked at. */
  fits: z.boolean(),
  clashes: z.array(clash),
  /** The nearest times that work, from what the asker sees; nearest first. */
  openings: z.array(z.strictObject(span)),
  /** Who of those who must be there isn't known, and so counted nowhere. */
  unknown: z.array(z.string()),
  /** Not all of the people, or not all of the days, could be looked at. */
  cut: z.boolean(),
});
export type CheckAnswer = z.infer<typeof checkAnswer>;

/** A search for times: for whom, who comes, how long, between which days. */
export const timesBody = z.strictObject({
  people: z
    .array(z.strictObject({ address: z.string().trim().toLowerCase().max(LIMITS.address), must: z.boolean() }))
    .max(60, 'tooManyPeople:60')
    .default([]),
  length: z.number().int().min(5).max(1440),
  from: z.iso.date('date'),
  days: z.number().int().min(1).max(56),
  zone: z.string().max(64, 'zone'),
  within: z.enum(['hours', 'any']).default('hours'),
  tentative: z.enum(['blocks', 'counts']).default('blocks'),
  padding: z.number().int().min(0).max(240).default(0),
  place: place.nullable().default(null),
  /** Only while whose calendar it is is at the place, by what their whereabouts say. */
  there: z.boolean().default(false),
  /** Any room of so many seats, at a site or wherever it is. */
  room: z
    .strictObject({ seats: z.number().int().min(1, 'size').max(100_000, 'size'), site: place.nullable().default(null) })
    .nullable()
    .default(null),
  /** Whether how many can come is counted, quarter of an hour by quarter of an hour. */
  sheet: z.boolean().default(false),
  item: z.string().max(128).nullable().default(null),
  /** What counts more than usual. */
  wishes: z
    .array(z.enum(['sooner', 'kinder', 'more']))
    .max(3)
    .default([]),
  /** What counts less. */
  less: z
    .array(z.enum(['sooner', 'kinder', 'more']))
    .max(3)
    .default([]),
});
export const timesAnswer = z.strictObject({
  /** Neighbouring starts that are as good, best first: `from` the first of them, `to` the last, `end` when the first would end. */
  runs: z.array(
    z.strictObject({
      from: z.string(),
      to: z.string(),
      end: z.string(),
      /** The room it could be had in, where any was asked for. */
      room: z.strictObject({ name: z.string(), address: z.string() }).nullable(),
      reasons: z.array(
        z.strictObject({
          why: z.enum(['cannot', 'tentative', 'keep', 'outside', 'gap']),
          who: z.string(),
          local: z.string().optional(),
          minutes: z.number().optional(),
        }),
      ),
    }),
  ),
  /** How many starts there are in all, and the first of them. */
  count: z.number(),
  next: z.string().nullable(),
  /** How many of those asked are known, and how many of them can come, by date and quarter of an hour of the clock; -1 where there is none. */
  known: z.number(),
  sheet: z.array(z.strictObject({ date: z.string(), can: z.array(z.number()) })),
  /** How many rooms would do and are known. */
  rooms: z.number().nullable(),
  unknown: z.array(z.string()),
  /** Where nothing fits: what would have to give, how many times that opens, and the first of them. */
  gives: z.array(
    z.strictObject({
      what: z.enum(['tentative', 'hours', 'padding', 'half', 'room', 'there', 'without']),
      who: z.string().nullable(),
      /** Of somebody who would have to be done without. */
      address: z.string().nullable(),
      count: z.number(),
      first: z.string(),
    }),
  ),
  cut: z.boolean(),
});
export type TimesAnswer = z.infer<typeof timesAnswer>;

/** A day of those who are asked, as the asker sees them. */
const timesDayAnswer = z.strictObject({
  lanes: z.array(
    z.strictObject({
      name: z.string(),
      address: z.string(),
      colour: z.number(),
      must: z.boolean(),
      sight: z.enum(SIGHTS),
      zone: z.string(),
      items: z.array(
        z.strictObject({
          start: z.string(),
          end: z.string(),
          title: z.string().nullable(),
          shows: z.enum(STATUSES),
          withheld: z.boolean(),
          whereabouts: z.boolean(),
        }),
      ),
    }),
  ),
  cut: z.boolean(),
});
export type TimesDayAnswer = z.infer<typeof timesDayAnswer>;

/** The same for a series: how often, and how many times; a year of weeks at most. */
export const timesSeriesBody = timesBody
  .extend({ every: z.number().int().min(1).max(4), times: z.number().int().min(2).max(26) })
  .refine(({ every, times }) => every * times <= MOST_SERIES_WEEKS, {
    path: ['times'],
    error: `seriesLong:${MOST_SERIES_WEEKS}`,
  });
const timesSeriesAnswer = z.strictObject({
  /** Starts of the first week, those that fit most often first, each with the occurrences that fail and for whom. */
  starts: z.array(
    z.strictObject({
      start: z.string(),
      end: z.string(),
      fits: z.number(),
      fails: z.array(z.strictObject({ at: z.string(), who: z.array(z.string()) })),
    }),
  ),
  unknown: z.array(z.string()),
  cut: z.boolean(),
});
export type TimesSeriesAnswer = z.infer<typeof timesSeriesAnswer>;

/** What would have to move so that the meeting fits: the cheapest plan, `null` where there is none. */
const roomAnswer = z.strictObject({
  plan: z
    .strictObject({
      start: z.string(),
      end: z.string(),
      cost: z.number(),
      room: z.strictObject({ name: z.string(), address: z.string() }).nullable(),
      moves: z.array(
        z.strictObject({
          item: z.string(),
          version: z.number(),
          title: z.string(),
          owner: z.string(),
          from: z.string(),
          to: z.string(),
          minutes: z.number(),
          /** Who else is in it, and is told of its new time. */
          told: z.array(z.string()),
        }),
      ),
    })
    .nullable(),
  /** How many items could be moved at all. */
  movable: z.number(),
  unknown: z.array(z.string()),
  cut: z.boolean(),
});
export type RoomAnswer = z.infer<typeof roomAnswer>;

const journey = z.tuple([
  z.string().trim().min(1).max(200),
  z.string().trim().min(1).max(200),
  z.number().int().min(0).max(2880),
]);
export const journeysAnswer = z.strictObject({ journeys: z.array(journey), mayChange: z.boolean() });
const journeysBody = z.strictObject({ text: z.string().max(400_000), apply: z.boolean() });
export const journeysRead = z.strictObject({
  journeys: z.array(journey),
  wrong: z.array(z.strictObject({ line: z.number(), why: z.enum(['columns', 'place', 'minutes', 'tooMany']) })),
  applied: z.boolean(),
});

/** Times that work, and what speaks against one; the journeys between places they count with. */
export const openingsRoutes = {
  checkTime: {
    ...at('checkTime'),
    who: 'person',
    summary: 'What speaks against a time, and the nearest that work',
    body: checkBody,
    reads: true,
    answer: checkAnswer,
  },
  findTimes: {
    ...at('findTimes'),
    who: 'person',
    summary: 'Times that work for who must be there, best first',
    body: timesBody,
    reads: true,
    answer: timesAnswer,
  },
  readTimesDay: {
    ...at('readTimesDay'),
    who: 'person',
    summary: 'The first day of a search as the asker sees it, a lane for everybody asked',
    body: timesBody,
    reads: true,
    answer: timesDayAnswer,
  },
  findSeriesTimes: {
    ...at('findSeriesTimes'),
    who: 'person',
    summary: 'Times of a first week that work most often when they repeat',
    body: timesSeriesBody,
    reads: true,
    answer: timesSeriesAnswer,
  },
  findRoom: {
    ...at('findRoom'),
    who: 'person',
    summary: 'The least that would have to move so that a meeting fits',
    body: timesBody,
    reads: true,
    answer: roomAnswer,
  },
  listJourneys: {
    ...at('listJourneys'),
    who: 'person',
    summary: 'How long it takes between places',
    answer: journeysAnswer,
  },
  bringInJourneys: {
    ...at('bringInJourneys'),
    who: 'person',
    summary: 'Read a table of journeys, and put it in the place of the one there',
    body: journeysBody,
    answer: journeysRead,
  },
  takeOutJourneys: {
    ...at('takeOutJourneys'),
    who: 'person',
    summary: 'The table of journeys as a file',
    rawAnswer: 'text/csv',
  },
} as const satisfies Routes;
