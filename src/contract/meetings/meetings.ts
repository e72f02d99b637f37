import { z } from 'zod';
import { ANSWERS, LIMITS } from '@/core/calendar/index.ts';
import { when, writtenAnswer } from '../items/items.ts';
import { at, done, type Routes } from '../route.ts';

const comment = z.string().trim().max(2000, 'tooLong:2000').default('');
const address = z.string().trim().toLowerCase().max(LIMITS.address);
/** The answer its sender saw: nobody overwrites an answer they haven't read. */
const seen = z.enum([...ANSWERS, 'another']).default('needs-action');

/** An answer in the name of whose calendar it is; `another` proposes a time instead. */
const answerBody = z.discriminatedUnion('answer', [
  z.strictObject({
    answer: z.enum(['accepted', 'tentative', 'declined']),
    comment,
    seen,
    scope: z.enum(['one', 'all']).default('all'),
  }),
  z.strictObject({ answer: z.literal('another'), when, comment, seen, scope: z.enum(['one', 'all']).default('all') }),
]);
export type AnswerBody = z.infer<typeof answerBody>;

/** Several invitations answered at once, each as it was seen. */
const answersBody = z.strictObject({
  answers: z
    .array(z.strictObject({ item: z.string().max(128), answer: z.enum(['accepted', 'tentative', 'declined']), seen }))
    .min(1)
    .max(50, 'tooManyPeople:50'),
});
const answersAnswer = z.strictObject({
  answered: z.array(
    z.strictObject({ item: z.string(), sending: z.string().nullable(), refused: z.string().nullable() }),
  ),
});
export type AnswersAnswer = z.infer<typeof answersAnswer>;

const times = z.strictObject({ start: z.string(), end: z.string(), allDay: z.boolean() });

/** What waits to be said: to whom, until when it can be taken back, and whether it waits for somebody who may say it. */
export const sendingWire = z.strictObject({
  key: z.string(),
  act: z.enum(['tell', 'off', 'nudge', 'declineCounter', 'answer', 'propose', 'refresh', 'handover']),
  who: z.string(),
  at: z.string(),
  leaves: z.string().nullable(),
  to: z.array(z.strictObject({ name: z.string(), outside: z.boolean() })),
  mine: z.boolean(),
  maySay: z.boolean(),
});
export type SendingWire = z.infer<typeof sendingWire>;

/** A meeting beside its item, for those who run the calendar: whom it asks, what each answered, what waits, what is asked back. */
const meetingAnswer = z.strictObject({
  part: z.enum(['organiser', 'attendee', 'none']),
  /** The version of its item, for whoever changes it. */
  version: z.number(),
  state: z.enum(['draft', 'sent', 'cancelled']),
  organiser: z.strictObject({ name: z.string().nullable(), address: z.string() }).nullable(),
  /** Who sent it last for the organiser, where that wasn't they themselves; only to those asked. */
  sentFor: z.string().nullable(),
  people: z.array(
    z.strictObject({
      address: z.string(),
      name: z.string().nullable(),
      role: z.enum(['must', 'may']),
      kind: z.enum(['person', 'group', 'room', 'thing']),
      outside: z.boolean(),
      /** Whether they were asked already. */
      asked: z.boolean(),
      answer: z.enum(ANSWERS),
      comment: z.string().nullable(),
      by: z.string().nullable(),
      /** How the last mail to them stands; `null` for whoever is inside. */
      mail: z.enum(['waiting', 'sent', 'failed']).nullable(),
      counter: z.strictObject({ when: times, comment: z.string().nullable() }).nullable(),
      /** The group they are asked as one of. */
      group: z.strictObject({ key: z.string(), name: z.string() }).nullable(),
      /** Who comes instead of them, and whom they come instead of. */
      sends: z.string().nullable(),
      sentBy: z.string().nullable(),
    }),
  ),
  /** Of an invitation: how it was answered, by whom and when. */
  answered: z.strictObject({ answer: seen, name: z.string(), at: z.string() }).nullable(),
  waiting: z.array(sendingWire),
  /** How its organiser classifies it, where that isn't public. */
  classified: z.enum(['private', 'confidential']).nullable(),
  questions: z.array(
    z.strictObject({
      why: z.string(),
      from: z.string(),
      says: z.string(),
      answer: z.enum(ANSWERS).nullable(),
      attendee: z.string().nullable(),
    }),
  ),
  may: z.strictObject({ change: z.boolean(), speak: z.boolean(), answer: z.boolean() }),
});
export type MeetingAnswer = z.infer<typeof meetingAnswer>;

/** What is done with a meeting the owner calls, beside changing it. */
const meetingAct = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('nudge'), whom: z.array(address).max(LIMITS.invited).nullable().default(null) }),
  z.strictObject({ act: z.literal('takeCounter'), attendee: address, version: z.number().int() }),
  z.strictObject({ act: z.literal('declineCounter'), attendee: address, comment }),
  z.strictObject({ act: z.literal('mailAgain'), attendee: address }),
]);
export type MeetingAct = z.infer<typeof meetingAct>;

/** Whether each can come at a time, from what the asker sees: `unknown` where that is nothing. */
const comingBody = z.strictObject({
  when,
  people: z.array(address).max(LIMITS.invited, `tooManyPeople:${LIMITS.invited}`),
  item: z.string().max(128).nullable().default(null),
});
export type ComingBody = z.infer<typeof comingBody>;
const COMING = ['free', 'reachable', 'tentative', 'busy', 'away', 'unknown'] as const;
const comingAnswer = z.strictObject({
  people: z.array(
    z.strictObject({ address: z.string(), name: z.string().nullable(), inside: z.boolean(), can: z.enum(COMING) }),
  ),
});
export type ComingAnswer = z.infer<typeof comingAnswer>;

/** Into which calendar a meeting goes that was booked in another, and at which other time where it gets one. */
const moveBody = z.strictObject({ to: z.string().max(64), version: z.number().int(), when: when.optional() });
export type MoveBody = z.infer<typeof moveBody>;

/** Meetings: called, answered, changed in the name of whose calendar they are in. */
export const meetingRoutes = {
  readMeeting: {
    ...at('readMeeting'),
    who: 'person',
    summary: 'Whom a meeting asks, what they answered, and what waits to be said',
    answer: meetingAnswer,
  },
  actOnMeeting: {
    ...at('actOnMeeting'),
    who: 'person',
    summary: 'Nudge who hasn’t answered, take or decline a proposed time',
    body: meetingAct,
    answer: writtenAnswer,
  },
  answerItem: {
    ...at('answerItem'),
    who: 'person',
    summary: 'Answer an invitation in the owner’s name, or propose another time',
    body: answerBody,
    answer: writtenAnswer,
  },
  answerSeveral: {
    ...at('answerSeveral'),
    who: 'person',
    summary: 'Answer several invitations at once',
    body: answersBody,
    answer: answersAnswer,
  },
  moveMeeting: {
    ...at('moveMeeting'),
    who: 'person',
    summary: 'Move an item, with its people and answers, into another calendar',
    body: moveBody,
    answer: writtenAnswer,
  },
  whoCanCome: {
    ...at('whoCanCome'),
    who: 'person',
    summary: 'Whether each can come at a time, from what one sees',
    body: comingBody,
    reads: true,
    answer: comingAnswer,
  },
  sayIt: {
    ...at('sayIt'),
    who: 'person',
    summary: 'Say what waits for somebody who may speak for the owner',
    answer: done,
  },
  takeBack: {
    ...at('takeBack'),
    who: 'person',
    summary: 'Take back what hasn’t left yet',
    answer: done,
  },
} as const satisfies Routes;
