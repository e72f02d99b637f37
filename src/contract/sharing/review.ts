import { z } from 'zod';
import { SIGHTS } from '@/core/calendar/index.ts';
import { TOPICS } from '@/core/review/index.ts';
import { at, done, type Routes } from '../route.ts';
import { audienceWire, authorship, instant, openedItem, preset } from './sharing.ts';
import { rightsSchema } from './sight.ts';

/** One line of the history: what an audience was given, when that record began and ended, and who gave it. */
const historyAnswer = z.strictObject({
  entries: z.array(
    z.strictObject({
      key: z.string(),
      audience: audienceWire,
      name: z.string(),
      rights: rightsSchema,
      preset,
      from: instant.nullable(),
      until: instant.nullable(),
      recorded: instant,
      replaced: instant.nullable(),
      given: authorship,
      /** The person behind a role account that gave it, as they said. */
      hands: z.string().nullable(),
      /** Who replaced it or took it away; `null` where it stands, or ended by itself. */
      ended: z.strictObject({ actor: z.string(), hands: z.string().nullable() }).nullable(),
    }),
  ),
});
export type HistoryAnswer = z.infer<typeof historyAnswer>;

/** A question: can this audience see this item, and why; now, or at an instant that has passed. */
const explainBody = z.strictObject({
  audience: audienceWire,
  item: z.string().max(128),
  at: z.iso.datetime({ error: 'date' }).nullable(),
});
export type ExplainBody = z.infer<typeof explainBody>;

/** A step on the way to an answer; which facts it carries depends on its kind. */
const explainStep = z.strictObject({
  step: z.string(),
  facts: z.record(z.string(), z.string()),
});
const explainAnswer = z.strictObject({
  at: instant,
  name: z.string(),
  seen: z.enum(['nothing', 'busy', 'withheld', 'title', 'outline', 'full']),
  item: z.strictObject({ title: z.string().nullable(), start: z.string(), end: z.string(), allDay: z.boolean() }),
  steps: z.array(explainStep),
});
export type ExplainAnswer = z.infer<typeof explainAnswer>;

/** How many people see an item in which way, and the named ones by name; `links` are the links that show it. */
const itemSightAnswer = z.strictObject({
  links: z.array(z.strictObject({ seen: z.string(), name: z.string() })),
  levels: z.array(
    z.strictObject({
      seen: z.string(),
      people: z.number(),
      /** Those who see more than everyone, or less, by name. */
      named: z.array(z.strictObject({ name: z.string(), handle: z.string() })),
    }),
  ),
});
export type ItemSightAnswer = z.infer<typeof itemSightAnswer>;

/** Something more open than it should be: why, and what mends it in one step. */
const finding = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('sensitive'),
    item: openedItem,
    version: z.number(),
    series: z.boolean(),
    people: z.number(),
  }),
  z.strictObject({ kind: z.literal('everyone'), sight: z.enum(SIGHTS), seen: z.string() }),
  z.strictObject({
    kind: z.literal('unused'),
    audience: audienceWire,
    name: z.string(),
    seen: z.string(),
    preset,
    lastUsed: instant.nullable(),
  }),
  z.strictObject({ kind: z.literal('endless'), audience: audienceWire, name: z.string(), seen: z.string(), preset }),
  z.strictObject({
    kind: z.literal('link'),
    audience: audienceWire,
    name: z.string(),
    seen: z.string(),
    sight: z.enum(SIGHTS),
  }),
  z.strictObject({
    kind: z.literal('leftGroup'),
    audience: audienceWire,
    name: z.string(),
    seen: z.string(),
    preset,
    group: z.string(),
    left: instant,
  }),
  /** People named with exactly what they would get without: their rows could go. */
  z.strictObject({
    kind: z.literal('spare'),
    people: z.array(z.strictObject({ audience: audienceWire, name: z.string(), seen: z.string() })),
  }),
]);
export type Finding = z.infer<typeof finding>;
const ownWord = z.strictObject({
  word: z.string().trim().min(1, 'wordMissing').max(60, 'tooLong:60'),
  topic: z.enum([...TOPICS, 'never']),
});
const findingsAnswer = z.strictObject({
  findings: z.array(finding),
  words: z.array(ownWord),
  mayChangeWords: z.boolean(),
});
export type FindingsAnswer = z.infer<typeof findingsAnswer>;
/** One's own words by which an item looks sensitive, in place of the ones before. */
const wordsBody = z.strictObject({ words: z.array(ownWord).max(300, 'listTooLong:300') });
export type WordsBody = z.infer<typeof wordsBody>;

/** Looking at what was given: its history, whether it can be seen and why, what is more open than it should be. */
export const reviewRoutes = {
  readHistory: {
    ...at('readHistory'),
    who: 'person',
    summary: 'Every grant ever recorded on a calendar',
    answer: historyAnswer,
  },
  readFindings: {
    ...at('readFindings'),
    who: 'person',
    summary: 'What is more open than it should be',
    answer: findingsAnswer,
  },
  changeWords: {
    ...at('changeWords'),
    who: 'person',
    summary: 'Set one’s own words by which items look sensitive',
    body: wordsBody,
    answer: done,
  },
  explainAccess: {
    ...at('explainAccess'),
    reads: true,
    who: 'person',
    summary: 'Whether an audience can see an item, and why, now or at a past instant',
    body: explainBody,
    answer: explainAnswer,
  },
  readItemSight: {
    ...at('readItemSight'),
    who: 'person',
    summary: 'Who sees what of an item',
    answer: itemSightAnswer,
  },
} as const satisfies Routes;
