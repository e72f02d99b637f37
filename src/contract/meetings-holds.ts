import { z } from 'zod';
import { itemFields } from '@/core/calendar/index.ts';
import { people, writtenAnswer } from './items.ts';
import { severalAnswer } from './items-several.ts';
import { MOST_HELD } from './mosts.ts';
import { at, type Routes } from './route.ts';

const instant = z.iso.datetime('start');

/** Times that are held for one meeting until one of them is fixed, and who will be asked to it then. They free themselves at an instant. */
export const holdsBody = z.strictObject({
  title: itemFields.title,
  place: itemFields.place.default(null),
  people: people.default([]),
  length: z.number().int().min(5).max(1440),
  starts: z.array(instant).min(1, 'noTimes').max(MOST_HELD, `tooManyHeld:${MOST_HELD}`),
  zone: z.string().max(64, 'zone'),
  lapses: instant,
});

/** The set of times a hold is one of. */
export const holdsAnswer = z.strictObject({
  letter: z.string(),
  lapses: z.string().nullable(),
  times: z.array(
    z.strictObject({ item: z.string(), version: z.number(), start: z.string(), end: z.string(), self: z.boolean() }),
  ),
  /** Who is asked once one is fixed. */
  people: z.array(z.strictObject({ address: z.string(), name: z.string().nullable() })),
});
export type HoldsAnswer = z.infer<typeof holdsAnswer>;

/** Times held for a meeting, fixed and freed. */
export const holdRoutes = {
  holdTimes: {
    ...at('holdTimes'),
    who: 'person',
    summary: 'Hold several times for one meeting, in one act',
    body: holdsBody,
    answer: severalAnswer,
  },
  readHolds: {
    ...at('readHolds'),
    who: 'person',
    summary: 'The set of times a hold is one of',
    answer: holdsAnswer,
  },
  fixHold: {
    ...at('fixHold'),
    who: 'person',
    summary: 'Make the meeting at one of the held times, ask whom it was held for, and free the others',
    body: z.strictObject({ version: z.number().int() }),
    answer: severalAnswer.extend({ fixed: writtenAnswer }),
  },
} as const satisfies Routes;
