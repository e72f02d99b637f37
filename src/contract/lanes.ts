import { z } from 'zod';
import { SIGHTS } from '@/core/calendar/index.ts';
import { type ItemsAnswer, itemsAnswer, rangeQuery } from './items/items.ts';
import { MOST_ON_BOARD } from './mosts.ts';
import { at, type Routes } from './route.ts';

/** The most lanes somebody keeps, and the most that stand on a board at once. */
export const MOST_LANES = 200;

const name = z.string().trim().max(80, 'tooLong:80').nullable();

/** A kept lane. `calendar` is there where one sees anything of it; without it there is only its head. */
const lane = z.strictObject({
  key: z.string(),
  calendar: z.string().nullable(),
  owner: z.strictObject({ handle: z.string(), name: z.string() }),
  /** The calendar's own name, where it isn't its owner's main one. */
  of: z.string().nullable(),
  /** One's own name for it. */
  name,
  colour: z.number(),
  sight: z.enum(SIGHTS),
  heading: z.enum(['run', 'look']),
  /** It stood under the other heading when its keeper last looked. */
  moved: z.boolean(),
  shown: z.boolean(),
  own: z.boolean(),
});
export type Lane = z.infer<typeof lane>;

const lanesAnswer = z.strictObject({ lanes: z.array(lane) });
export const saveLanesBody = z.strictObject({
  people: z.array(z.string().max(64)).max(MOST_LANES).default([]),
  group: z.string().max(64).nullable().default(null),
  calendars: z.array(z.string().max(64)).max(MOST_LANES).default([]),
});
const savedLanesAnswer = z.strictObject({ kept: z.number(), already: z.number() });
export const laneBody = z.strictObject({
  name: name.optional(),
  colour: z.number().int().min(0).max(5).optional(),
  shown: z.boolean().optional(),
  /** The keeper has seen under which heading it stands now. */
  looked: z.literal(true).optional(),
});
const laneOrder = z.strictObject({ lanes: z.array(z.string().max(80)).max(MOST_LANES) });

/** What happens in several calendars: each as asked for alone, with the refusal where there is nothing for one there. */
const boardsBody = rangeQuery.extend({ calendars: z.array(z.string().max(64)).min(1).max(MOST_ON_BOARD) });
const boardsAnswer = z.strictObject({
  boards: z.array(z.strictObject({ calendar: z.string(), answer: itemsAnswer.nullable() })),
});
export interface BoardsAnswer {
  readonly boards: readonly { readonly calendar: string; readonly answer: ItemsAnswer | null }[];
}

const done = z.strictObject({ done: z.literal(true) });

/** Several calendars at once on every board, and the list of those one keeps. */
export const laneRoutes = {
  listLanes: {
    ...at('listLanes'),
    who: 'person',
    summary: 'The lanes one keeps: those one runs, and those one looks at',
    answer: lanesAnswer,
  },
  saveLanes: {
    ...at('saveLanes'),
    who: 'person',
    summary: 'Keep calendars as lanes: of people, of everybody in a group, or by themselves',
    body: saveLanesBody,
    answer: savedLanesAnswer,
  },
  changeLane: {
    ...at('changeLane'),
    who: 'person',
    summary: 'One’s own name and colour for a lane, and whether it is shown',
    body: laneBody,
    answer: done,
  },
  dropLane: {
    ...at('dropLane'),
    who: 'person',
    summary: 'Take a lane out of one’s list; what one may see stays',
    answer: done,
  },
  orderLanes: {
    ...at('orderLanes'),
    who: 'person',
    summary: 'Put one’s lanes in order',
    body: laneOrder,
    answer: done,
  },
  listBoards: {
    ...at('listBoards'),
    who: 'person',
    summary: 'What happens in several calendars in a range, as one sees each',
    body: boardsBody,
    reads: true,
    answer: boardsAnswer,
  },
} as const satisfies Routes;
