import { z } from 'zod';
import {
  ANSWERS,
  FORWARD_CHANGED,
  itemFields,
  KINDS,
  NOT_FORWARD,
  pick,
  STATUSES,
  sentFields,
  VISIBILITIES,
} from '@/core/calendar/index.ts';
import { newItem, people, when } from './items/items.ts';
import { at, done, type Routes } from './route.ts';

const why = z.string().trim().max(1000, 'tooLong:1000').default('');

/** Of a series, one occurrence or all. */
const scope = z.enum(['one', 'all']).optional();

/**
 * What somebody without the right to do it puts forward for a calendar: an addition, a change of one item, or its removal. Only what
 * whoever answers is shown of it can be put forward.
 */
export const suggestionBody = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('add'),
    item: newItem.omit(NOT_FORWARD),
    why,
  }),
  z.strictObject({
    kind: z.literal('change'),
    item: z.string().max(128),
    when: when.optional(),
    /** Who would be there, all of them. */
    people: people.optional(),
    scope,
    fields: z.strictObject(pick(itemFields, FORWARD_CHANGED)).partial(),
    why,
  }),
  z.strictObject({ kind: z.literal('remove'), item: z.string().max(128), scope, why }),
  z.strictObject({
    kind: z.literal('answer'),
    item: z.string().max(128),
    answer: z.enum(['accepted', 'tentative', 'declined']),
    comment: z.string().trim().max(2000, 'tooLong:2000').default(''),
    why,
  }),
]);
export type SuggestionBody = z.infer<typeof suggestionBody>;

/** Yes or no, from whoever may make the change, with the version of the item they looked at; or taken back by its author. */
const suggestionAnswerBody = z.strictObject({
  answer: z.enum(['yes', 'no', 'withdrawn']),
  note: z.string().trim().max(1000, 'tooLong:1000').default(''),
  version: z.number().int().nullable().default(null),
});
export type SuggestionAnswerBody = z.infer<typeof suggestionAnswerBody>;

const texts = z.strictObject(pick(sentFields, FORWARD_CHANGED)).partial().shape;
const times = z.strictObject({ start: z.string(), end: z.string(), allDay: z.boolean() });

const suggestion = z.strictObject({
  key: z.string(),
  at: z.string(),
  kind: z.enum(['add', 'change', 'remove', 'answer']),
  who: z.string(),
  /** One's own, waiting for others or answered by them. */
  own: z.boolean(),
  owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
  /** The further calendar it is for; `null` for a main one. */
  further: z.strictObject({ key: z.string(), name: z.string() }).nullable(),
  why: z.string(),
  state: z.enum(['open', 'yes', 'no', 'withdrawn']),
  answeredBy: z.string().nullable(),
  answerNote: z.string(),
  /** The item as it stands, as far as the viewer sees it; `null` for an addition and where they don't see it. */
  now: z.strictObject({ ...times.shape, ...texts }).nullable(),
  /** What it would become: only what was touched. */
  wanted: z.strictObject({
    when: times.nullable(),
    ...texts,
    kind: z.enum(KINDS).optional(),
    shows: z.enum(STATUSES).optional(),
    visibility: z.enum(VISIBILITIES).optional(),
    rule: z.string().nullable().optional(),
    people: z.array(z.strictObject({ name: z.string().nullable(), address: z.string() })).optional(),
    answer: z.enum(ANSWERS).optional(),
    comment: z.string().optional(),
    all: z.literal(true).optional(),
  }),
  /** Whether the item changed since it was put forward. */
  movedOn: z.boolean(),
  /** The version of the item as it stands: for whoever says yes. */
  version: z.number().nullable(),
  /** What else takes that time, as far as the viewer sees it: `null` for what has no title for them. */
  overlaps: z.array(z.string().nullable()),
});
export type SuggestionWire = z.infer<typeof suggestion>;
/** What waits for one's yes, and what one put forward oneself, the newest first. */
const suggestionsAnswer = z.strictObject({ waiting: z.array(suggestion), own: z.array(suggestion) });
export type SuggestionsAnswer = z.infer<typeof suggestionsAnswer>;

/** What an answer leads to: the key that undoes a yes. */
const suggestionAnswered = z.strictObject({ undo: z.string().nullable() });
export type SuggestionAnswered = z.infer<typeof suggestionAnswered>;

/** Changes put forward, and their answers. */
export const suggestionRoutes = {
  putForward: {
    ...at('putForward'),
    who: 'person',
    summary: 'Put a change of a calendar forward',
    body: suggestionBody,
    answer: done,
  },
  listSuggestions: {
    ...at('listSuggestions'),
    who: 'person',
    summary: 'What waits for one’s yes, and what one put forward',
    answer: suggestionsAnswer,
  },
  answerSuggestion: {
    ...at('answerSuggestion'),
    who: 'person',
    summary: 'Say yes or no to a suggestion, or take one’s own back',
    body: suggestionAnswerBody,
    answer: suggestionAnswered,
  },
} as const satisfies Routes;
