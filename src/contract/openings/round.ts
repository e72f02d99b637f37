import { z } from 'zod';
import { LIMITS } from '@/core/calendar/index.ts';
import { at, type Routes } from '../route.ts';
import { timesAnswer, timesBody } from './openings.ts';

const people = z
  .array(z.strictObject({ address: z.string().trim().toLowerCase().max(LIMITS.address), must: z.boolean() }))
  .max(60, 'tooManyPeople:60');

/** Several meetings to be placed together: each with whose calendar it is, with those who come to all of them, and with its own people. */
export const roundBody = timesBody.omit({ length: true, room: true, sheet: true, there: true }).extend({
  meetings: z
    .array(z.strictObject({ length: z.number().int().min(5).max(1440), people: people.default([]) }))
    .min(2, 'roundFew')
    .max(8, 'listTooLong:8'),
});
const roundAnswer = z.strictObject({
  /** Where each is put, in the order they were asked for; `null` where there is no way for all of them. */
  placed: z
    .array(
      z.strictObject({
        start: z.string(),
        end: z.string(),
        reasons: timesAnswer.shape.runs.element.shape.reasons,
      }),
    )
    .nullable(),
  /** Which of them have no time at all, by their place in what was asked. */
  without: z.array(z.number()),
  unknown: z.array(z.string()),
  cut: z.boolean(),
});
export type RoundAnswer = z.infer<typeof roundAnswer>;

/** Rounds: several meetings placed together. */
export const roundRoutes = {
  findRound: {
    ...at('findRound'),
    who: 'person',
    summary: 'Times for several meetings with people in common, at the least cost',
    body: roundBody,
    reads: true,
    answer: roundAnswer,
  },
} as const satisfies Routes;
