import { z } from 'zod';
import { done, type Routes } from './route.ts';
import { audienceWire, instant, preset } from './sharing.ts';
import { rightsSchema } from './sight.ts';

/** What one was told of one's access to others' calendars, and what soon ends: given by oneself, or held. */
export const noticesAnswer = z.strictObject({
  notices: z.array(
    z.strictObject({
      key: z.string(),
      at: instant,
      kind: z.enum(['given', 'changed', 'taken', 'joined', 'wayInMade', 'passwordMade']),
      by: z.string(),
      owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
      rights: rightsSchema.nullable(),
      until: instant.nullable(),
      note: z.string(),
      unread: z.boolean(),
      open: z.boolean(),
      /** Set where one is told of one's own calendar: who was given it, or lost it. */
      about: z.string().nullable(),
      /** The further calendar it is about; `null` for a main one. */
      further: z.strictObject({ key: z.string(), name: z.string() }).nullable(),
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
      further: z.strictObject({ key: z.string(), name: z.string() }).nullable(),
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

/** What one was told. */
export const messageRoutes = {
  listNotices: {
    method: 'GET',
    path: '/api/notices',
    who: 'person',
    summary: 'What one was told of access, and what soon ends',
    answer: noticesAnswer,
  },
  readNotices: {
    method: 'POST',
    path: '/api/notices',
    who: 'person',
    summary: 'Mark all one was told as read',
    answer: done,
  },
} as const satisfies Routes;
