import { z } from 'zod';
import { deskRow } from './desk.ts';
import { itemWire } from './items/items.ts';
import { at, done, type Routes } from './route.ts';
import { taskWire } from './tasks.ts';
import { trailEntry } from './trail.ts';

const DAY_PARTS = ['morning', 'evening'] as const;
export type DayPart = (typeof DAY_PARTS)[number];

/** One person's day, as the viewer sees it: in the morning today, in the evening what was done and what tomorrow brings. */
const personDay = z.strictObject({
  handle: z.string(),
  name: z.string(),
  colour: z.number(),
  own: z.boolean(),
  /** What happens on the day, with its briefings, in order; what is by date first. */
  items: z.array(itemWire),
  /** What is to be done on the day, and what is overdue, as one sees it. */
  tasks: z.array(taskWire),
  /** Ways between two of them, by the item that they lead to, in minutes. */
  ways: z.array(z.strictObject({ to: z.string(), minutes: z.number() })),
  /** What others did since yesterday with what happens today. */
  changes: z.array(trailEntry),
  /** What others did today in one's own name. */
  done: z.array(trailEntry),
  /** What of the Desk is due before tomorrow ends. */
  open: z.array(deskRow),
  /** Tomorrow holds far less than such a day as a rule: booked minutes then, and as a rule. */
  empty: z.strictObject({ booked: z.number(), usual: z.number() }).nullable(),
  /** There is more than stands here. */
  cut: z.boolean(),
});
export type PersonDay = z.infer<typeof personDay>;

const dayAnswer = z.strictObject({
  of: z.enum(DAY_PARTS),
  /** The day it tells of, on the reader's own clock. */
  date: z.string(),
  people: z.array(personDay),
  /** In the evening: the digest of the trail, for whoever keeps it. */
  digest: z.strictObject({ at: z.string(), digest: z.string() }).nullable(),
});
export type DayAnswer = z.infer<typeof dayAnswer>;

const time = z
  .string()
  .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'time')
  .nullable();
const letters = { morning: time, evening: time };

/** The morning and the evening of one's own day, and of the days of those one acts for. */
export const dayRoutes = {
  readDay: {
    ...at('readDay'),
    who: 'person',
    summary:
      'The morning (today, what changed, ways, briefings) or the evening (what was done, what is open for tomorrow)',
    query: z.strictObject({ of: z.enum(DAY_PARTS), for: z.string().max(64).default('all') }),
    answer: dayAnswer,
  },
  readDayLetters: {
    ...at('readDayLetters'),
    who: 'person',
    summary: 'At what time one is sent both as letters, if at all, and whether letters can be sent',
    answer: z.strictObject({ ...letters, mail: z.boolean() }),
  },
  saveDayLetters: {
    ...at('saveDayLetters'),
    who: 'person',
    summary: 'Say at what time of one’s own day one is sent both as letters; null for not at all',
    body: z.strictObject(letters),
    answer: done,
  },
} as const satisfies Routes;
