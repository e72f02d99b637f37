import { z } from 'zod';
import { LIMITS } from '@/core/calendar/index.ts';
import { at, done, type Routes } from './route.ts';

const day = z.iso.date('date');
const minutes = z.strictObject({ name: z.string(), minutes: z.number() });

/** What somebody's time went to between two days, the last one included; a name of `''` is what the reader doesn't see, or what has none. */
const period = z.strictObject({
  from: z.string(),
  until: z.string(),
  /** Minutes taken at all: what lies over another counts once; elsewhere it counts for each. */
  total: z.number(),
  kinds: z.array(minutes),
  categories: z.array(minutes),
  people: z.array(minutes.extend({ address: z.string(), times: z.number() })),
  sides: z.strictObject({ alone: z.number(), inside: z.number(), outside: z.number(), unseen: z.number() }),
  weeks: z.array(z.strictObject({ from: z.string(), total: z.number(), kinds: z.array(minutes) })),
  /** Not all of it could be counted. */
  cut: z.boolean(),
});
export type TimePeriod = z.infer<typeof period>;

const share = z.strictObject({
  by: z.enum(['kind', 'category', 'side']),
  name: z.string().trim().min(1, 'nameMissing').max(LIMITS.category, `tooLong:${LIMITS.category}`),
  percent: z.number('percent').int('percent').min(0, 'percent').max(100, 'percent'),
});
export type TimeShareWire = z.infer<typeof share>;

const answer = z.strictObject({
  owner: z.strictObject({ handle: z.string(), name: z.string(), own: z.boolean() }),
  period,
  /** The other one, beside it. */
  other: period.nullable(),
  shares: z.array(share),
  version: z.number(),
});
export type TimeUseAnswer = z.infer<typeof answer>;

/** Two days, and two of a period to put beside them. */
const query = z.strictObject({ from: day, until: day, otherFrom: day.optional(), otherUntil: day.optional() });
export type TimeUseQuery = z.infer<typeof query>;

/** What somebody's time goes to, as whoever acts for them sees it. */
export const timeUseRoutes = {
  readTimeUse: {
    ...at('readTimeUse'),
    who: 'person',
    summary: 'Hours by kind, category, people, inside and outside, and week by week; two periods side by side',
    query,
    answer,
  },
  timeUseFile: {
    ...at('timeUseFile'),
    who: 'person',
    summary: 'The same as a table',
    query,
    rawAnswer: 'text/csv',
  },
  saveTimeShares: {
    ...at('saveTimeShares'),
    who: 'person',
    summary: 'Say what shares of somebody’s time are wished for',
    body: z.strictObject({ shares: z.array(share).max(20, 'listTooLong:20'), version: z.number().int().min(0) }),
    answer: done,
  },
} as const satisfies Routes;
