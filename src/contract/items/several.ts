import { z } from 'zod';
import { VISIBILITIES } from '@/core/calendar/index.ts';
import { MOST_AT_ONCE } from '../mosts.ts';
import { at, type Routes } from '../route.ts';
import { itemWire, writtenAnswer } from './items.ts';

const step = { days: z.number().int().min(-3660).max(3660), minutes: z.number().int().min(-1440).max(1440) };

/** One act on several items that were picked: moved by days and minutes, seen by others otherwise, or removed. Each is meant by itself, also of a series. */
const severalBody = z.strictObject({
  items: z
    .array(
      z.strictObject({
        item: z.string().max(128),
        version: z.number().int(),
        /** Where this one goes, where that isn't where the others go. */
        to: z.string().max(64).optional(),
        /** When this one begins, where each gets a time of its own. */
        at: z.iso.datetime('start').optional(),
      }),
    )
    .min(1)
    .max(MOST_AT_ONCE, `tooManyPicked:${MOST_AT_ONCE}`),
  change: z.discriminatedUnion('kind', [
    z.strictObject({
      kind: z.literal('shift'),
      ...step,
    }),
    z.strictObject({ kind: z.literal('visibility'), visibility: z.enum(VISIBILITIES) }),
    z.strictObject({ kind: z.literal('remove') }),
    z.strictObject({ kind: z.literal('times') }),
    /** Into another calendar, and by as much in time. It is undone by the same act the other way, not by the token in its answer. */
    z.strictObject({ kind: z.literal('into'), to: z.string().max(64), ...step }),
  ]),
});
export type SeveralBody = z.infer<typeof severalBody>;

/** What an act on several answers: how many it wrote, one token that takes all of it back, and how many hear of it. */
export const severalAnswer = z.strictObject({
  written: z.number(),
  /** What was written, as far as its writer sees it now. */
  items: z.array(itemWire),
  undo: z.string(),
  /** Messages that leave in a moment for it, or wait for somebody who may say them. */
  sendings: z.number(),
});
export type SeveralAnswer = z.infer<typeof severalAnswer>;

const copiesBody = z.strictObject({
  dates: z.array(z.iso.date('date')).min(1).max(MOST_AT_ONCE, `tooManyPicked:${MOST_AT_ONCE}`),
});

/** What of a series isn't as its rule says: dates that were left out, and occurrences that are items of their own. */
const apartAnswer = z.strictObject({
  /** All days of a series without a rule; beside a rule, those that were added to it. One at another hour has its time with it. */
  days: z.array(z.string()),
  left: z.array(z.string()),
  apart: z.array(z.strictObject({ was: z.string(), item: itemWire })),
  cut: z.boolean(),
});
export type ApartAnswer = z.infer<typeof apartAnswer>;

/** Brings one exception of a series back to what the series says. */
const rejoinBody = z.strictObject({ version: z.number().int() });

/** Several items at once, an item on several dates, and the exceptions of a series. */
export const severalRoutes = {
  changeSeveral: {
    ...at('changeSeveral'),
    who: 'person',
    summary: 'One act on several items: all of it, or none',
    body: severalBody,
    answer: severalAnswer,
  },
  copyItem: {
    ...at('copyItem'),
    who: 'person',
    summary: 'Put another like an item on each of some dates, without its people',
    body: copiesBody,
    answer: severalAnswer,
  },
  listApart: {
    ...at('listApart'),
    who: 'person',
    summary: 'What of a series isn’t as its rule says',
    answer: apartAnswer,
  },
  rejoinItem: {
    ...at('rejoinItem'),
    who: 'person',
    summary: 'Make a happening that was changed by itself as its series again',
    body: rejoinBody,
    answer: writtenAnswer,
  },
} as const satisfies Routes;
