import { z } from 'zod';
import { SIGHTS } from '@/core/calendar/index.ts';
import { COLLECTION_KINDS, FIRST_COLLECTIONS } from '@/core/collection/index.ts';
import { MOST_ASKED } from '../mosts.ts';
import { at, done, type Routes } from '../route.ts';
import { audienceWire, authorship, choice, instant, preset, span } from './sharing.ts';
import { rightsSchema } from './sight.ts';

const first = z.enum(FIRST_COLLECTIONS);
const why = z.string().trim().max(1000, 'tooLong:1000');

/**
 * A request for access, to people: what one would like to see and do of theirs, why, for how long. `what` is which of those that everybody
 * begins with is asked for; `calendar` in its place names a further one, of any kind, that one sees something of. `offers` is what one
 * shows them of one's own of that from now on; absent or `null` nothing.
 */
export const requestAccessBody = z.strictObject({
  to: z.array(z.string().max(64)).min(1, 'nobody').max(MOST_ASKED, `tooManyPeople:${MOST_ASKED}`),
  what: first.default('calendar'),
  calendar: z.string().max(64).nullable().default(null),
  rights: rightsSchema,
  span: span.nullable().default(null),
  why: why.default(''),
  offers: z.enum(SIGHTS).nullable().default(null),
});
export type RequestAccessBody = z.infer<typeof requestAccessBody>;
/** How many were asked, and how many were left out because one has that of them already. */
const requestAccessAnswer = z.strictObject({ asked: z.number(), already: z.number() });

const person = z.strictObject({
  handle: z.string(),
  name: z.string(),
  detail: z.string(),
  colour: z.number(),
  outside: z.boolean(),
});

/** What somebody is given by name where an access request is answered, and how it came: by an answer to this request or by hand. */
const standing = z.strictObject({
  key: z.string(),
  rights: rightsSchema,
  preset,
  from: instant.nullable(),
  until: instant.nullable(),
  since: instant,
  given: authorship,
  byAsk: z.boolean(),
});

const accessRequest = z.strictObject({
  key: z.string(),
  /** When it was asked, or asked again. */
  at: instant,
  state: z.enum(['open', 'given', 'refused', 'takenBack']),
  /** How often anything was done with it; an answer names what was seen. */
  turns: z.number(),
  from: person,
  to: person,
  /**
   * What it is about; `null` for the main calendar. `what` is which of those that everybody begins with; where it is none, the name is
   * empty for an asker who doesn't see it any more, and so is the key of whatever they don't see.
   */
  further: z
    .strictObject({ key: z.string(), name: z.string(), kind: z.enum(COLLECTION_KINDS), what: first.nullable() })
    .nullable(),
  wants: rightsSchema,
  preset,
  starts: instant.nullable(),
  ends: instant.nullable(),
  why: z.string(),
  /** What the asker shows of their own since they asked, as it stands now. */
  gave: rightsSchema.nullable(),
  answers: z.array(
    z.strictObject({
      at: instant,
      answer: z.enum(['given', 'refused']),
      by: authorship.nullable(),
      rights: rightsSchema.nullable(),
      note: z.string(),
    }),
  ),
  nudged: instant.nullable(),
  /** What the asker has there now, by whatever way. */
  has: rightsSchema,
});

/** An access request as its asker finds it. */
const ownAccessRequest = accessRequest.extend({
  /** From when on one may nudge, or ask again after a no. */
  again: instant,
  news: z.boolean(),
});
export type OwnAccessRequest = z.infer<typeof ownAccessRequest>;

/** An access request as whoever answers it finds it, with what the asker is given by name there. */
const accessRequestToAnswer = accessRequest.extend({
  calendar: z.string(),
  /** The asker, as access is given to them there. */
  audience: audienceWire,
  standing: z.array(standing),
  /** What they would have were nothing given to them by name. */
  without: rightsSchema,
  own: z.boolean(),
});
export type AccessRequestToAnswer = z.infer<typeof accessRequestToAnswer>;

const accessRequestsAnswer = z.strictObject({
  /** What waits for one's answer, the oldest first, and what was answered, the latest first. */
  waiting: z.array(accessRequestToAnswer),
  answered: z.array(accessRequestToAnswer),
  own: z.array(ownAccessRequest),
  /** That there are more than these. */
  cut: z.boolean(),
});
export type AccessRequestsAnswer = z.infer<typeof accessRequestsAnswer>;

/**
 * The answer to an access request. A yes gives what is chosen in place of the grant `seen` (`null`: beside what is there); a no takes the grants
 * named away with it, and says so to the asker or, being quiet, is seen by them as closed alone.
 */
export const answerAccessRequestBody = z.discriminatedUnion('answer', [
  z.strictObject({
    answer: z.literal('give'),
    turns: z.number().int(),
    rights: rightsSchema,
    span: span.nullable().default(null),
    seen: z.string().max(64).nullable(),
    note: why.default(''),
  }),
  z.strictObject({
    answer: z.literal('refuse'),
    turns: z.number().int(),
    takes: z.array(z.string().max(64)).max(50).default([]),
    note: why.default(''),
    quiet: z.boolean().default(false),
  }),
]);
export type AnswerAccessRequestBody = z.infer<typeof answerAccessRequestBody>;

/** What can be asked for beside some rights. */
const accessRequestChoicesBody = z.strictObject({
  rights: rightsSchema,
  kind: z.enum(COLLECTION_KINDS).default('calendar'),
});
const accessRequestChoicesAnswer = z.strictObject({ choices: z.array(choice) });

/** Asking for access, and answering who asks. */
export const accessRequestRoutes = {
  listAccessRequests: {
    ...at('listAccessRequests'),
    who: 'person',
    summary: 'Who asks for access that one may give, and what one asks for oneself',
    answer: accessRequestsAnswer,
  },
  requestAccess: {
    ...at('requestAccess'),
    who: 'person',
    summary: 'Ask people for access to their calendars, tasks, contacts or message folders',
    body: requestAccessBody,
    answer: requestAccessAnswer,
  },
  accessRequestChoices: {
    ...at('accessRequestChoices'),
    who: 'person',
    reads: true,
    summary: 'What can be asked for, and what each choice comes to',
    body: accessRequestChoicesBody,
    answer: accessRequestChoicesAnswer,
  },
  answerAccessRequest: {
    ...at('answerAccessRequest'),
    who: 'person',
    summary: 'Give what was asked for, or say no; also after the other was said',
    body: answerAccessRequestBody,
    answer: done,
  },
  remindOfAccessRequest: {
    ...at('remindOfAccessRequest'),
    who: 'person',
    summary: 'Remind those who can answer one’s ask, once a day',
    answer: done,
  },
  withdrawAccessRequest: {
    ...at('withdrawAccessRequest'),
    who: 'person',
    summary: 'Take one’s ask back',
    answer: done,
  },
} as const satisfies Routes;
