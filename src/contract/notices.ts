import { z } from 'zod';
import { COLLECTION_KINDS } from '@/core/collection/index.ts';
import { at, done, type Routes } from './route.ts';
import { audienceWire, instant, preset } from './sharing/sharing.ts';
import { rightsSchema } from './sharing/sight.ts';

/** What isn't somebody's main calendar: a further one, a list of tasks, an address book or a message folder (an empty name is the one everybody begins with). */
const further = z.strictObject({ key: z.string(), kind: z.enum(COLLECTION_KINDS), name: z.string() }).nullable();

/** What one was told of one's access to others' calendars, and what soon ends: given by oneself, or held. */
const noticesAnswer = z.strictObject({
  notices: z.array(
    z.strictObject({
      key: z.string(),
      at: instant,
      kind: z.enum(['given', 'changed', 'taken', 'joined', 'begun', 'wayInMade', 'passwordMade']),
      by: z.string(),
      owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
      rights: rightsSchema.nullable(),
      until: instant.nullable(),
      note: z.string(),
      unread: z.boolean(),
      open: z.boolean(),
      /** Where it is about one's own calendar: who was given access to it, or lost it. */
      about: z.string().nullable(),
      /** The further calendar or the list it is about; `null` for a main calendar. */
      further,
    }),
  ),
  /** What is more open on one's own calendars than it should be: said once a month. */
  findings: z.array(
    z.strictObject({
      key: z.string(),
      further: z.strictObject({ key: z.string(), name: z.string() }).nullable(),
      count: z.number(),
      at: instant,
      unread: z.boolean(),
    }),
  ),
  /** Wishes for a house rule: those that wait for one as an administrator, and one's own with their answers. */
  wishes: z.array(
    z.strictObject({
      key: z.string(),
      at: instant,
      who: z.string(),
      own: z.boolean(),
      rule: z.string(),
      further: z.boolean(),
      wanted: z.string(),
      now: z.string(),
      note: z.string(),
      answer: z.enum(['changed', 'left']).nullable(),
      answeredBy: z.string().nullable(),
      answerNote: z.string(),
    }),
  ),
  ending: z.array(
    z.strictObject({
      key: z.string(),
      further,
      audience: audienceWire.nullable(),
      /** Its end has come, and it wasn't cleared away yet. */
      over: z.boolean(),
      owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
      who: z.string(),
      held: z.boolean(),
      until: instant,
      preset,
    }),
  ),
});
export type NoticesAnswer = z.infer<typeof noticesAnswer>;

/** What one is told of access. */
export const noticeRoutes = {
  listNotices: {
    ...at('listNotices'),
    who: 'person',
    summary: 'What one was told of access, and what soon ends',
    answer: noticesAnswer,
  },
  readNotices: {
    ...at('readNotices'),
    who: 'person',
    summary: 'Mark all one was told as read',
    answer: done,
  },
} as const satisfies Routes;
