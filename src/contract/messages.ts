import { z } from 'zod';
import { ANSWERS, LIMITS } from '@/core/calendar/index.ts';
import { GIVEN_KINDS } from '@/core/collection/index.ts';
import { sendingWire } from './meetings/meetings.ts';
import { at, done, type Routes } from './route.ts';
import { audienceWire, instant, preset } from './sharing/sharing.ts';
import { rightsSchema } from './sharing/sight.ts';

/** What isn't somebody's main calendar: a further one, or a list of tasks (an empty name is the list everybody begins with). */
const further = z.strictObject({ key: z.string(), kind: z.enum(GIVEN_KINDS), name: z.string() }).nullable();

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

const box = z.strictObject({ name: z.string().nullable(), address: z.string() });
const times = z.strictObject({ start: z.string(), end: z.string(), allDay: z.boolean() });
const MESSAGE_KINDS = [
  'invitation',
  'change',
  'calledOff',
  'answer',
  'counter',
  'counterDeclined',
  'stateAsked',
  'forInformation',
  'chosen',
  'question',
  'mail',
] as const;

const messageWire = z.strictObject({
  key: z.string(),
  at: instant,
  kind: z.enum(MESSAGE_KINDS),
  sent: z.boolean(),
  from: box,
  /** Who sent it, where that is somebody acting for the sender. */
  by: box.nullable(),
  to: z.array(box),
  subject: z.string(),
  says: z.string(),
  when: times.nullable(),
  answer: z.enum(ANSWERS).nullable(),
  why: z.string().nullable(),
  /** Whom it speaks for, where that isn't the sender. */
  attendee: z.string().nullable(),
  /** Whether the mail host vouches for its sender; `null` for what never left the house. */
  checked: z.boolean().nullable(),
  mark: z.string().nullable(),
  /** How many calendar parts and items of a mail were left out, since one mail has a most. */
  leftOut: z.number(),
  /** Whom an attendee would send instead of themselves, where that waits for a yes. */
  sentInstead: z.string().nullable(),
  files: z.array(z.strictObject({ name: z.string(), bytes: z.number() })),
  unread: z.boolean(),
  /** It has its effect only after somebody who may do so has said yes. */
  pending: z.boolean(),
});
export type MessageWire = z.infer<typeof messageWire>;

/** What belongs together: a meeting's messages, or a mail and what answers it. */
const thread = z.strictObject({
  key: z.string(),
  kind: z.enum(['meeting', 'mail']),
  /** The meeting is private and not for the one who asks: no more is said of it than that its time is taken. */
  withheld: z.boolean(),
  title: z.string().nullable(),
  when: times.nullable(),
  place: z.string().nullable(),
  item: z.string().nullable(),
  part: z.enum(['organiser', 'attendee']).nullable(),
  organiser: box.nullable(),
  needs: z.enum(['answer', 'counter', 'question', 'say', 'mail']).nullable(),
  answered: z.strictObject({ answer: z.enum([...ANSWERS, 'another']), name: z.string(), at: instant }).nullable(),
  cancelled: z.boolean(),
  repeats: z.boolean(),
  mayAnswer: z.boolean(),
  unread: z.number(),
  at: instant,
  waiting: z.array(sendingWire),
  messages: z.array(messageWire),
});
export type ThreadWire = z.infer<typeof thread>;

/** The messages of one person: theirs, or for whoever acts for them those of their meetings. */
const messagesAnswer = z.strictObject({
  owner: z.strictObject({ handle: z.string(), name: z.string(), address: z.string(), colour: z.number() }),
  own: z.boolean(),
  maySpeak: z.boolean(),
  threads: z.array(thread),
  /** Behind which message to ask on; `null` where that is all. */
  more: z.number().nullable(),
  /** For an administrator: how many mails came for nobody who is here; their content is unseen. */
  forNobody: z.number(),
});
export type MessagesAnswer = z.infer<typeof messagesAnswer>;

const messagesQuery = z.strictObject({ before: z.coerce.number().int().min(1).optional() });
const readBody = z.strictObject({ messages: z.array(z.string().max(64)).max(500) });

/** A mail in the principal's name: new, or an answer to one that is there. */
const mailBody = z.strictObject({
  to: z
    .array(
      z.strictObject({
        address: z.string().trim().toLowerCase().max(LIMITS.address).pipe(z.email('address')),
        name: z.string().trim().max(LIMITS.name).nullable().default(null),
      }),
    )
    .min(1, 'nobody')
    .max(50, 'tooManyPeople:50'),
  subject: z.string().trim().min(1, 'subjectMissing').max(300, 'tooLong:300'),
  text: z.string().trim().min(1, 'textMissing').max(50_000, 'tooLong:50000'),
  answers: z.string().max(64).nullable().default(null),
});
export type MailBody = z.infer<typeof mailBody>;

/** What one was told. */
export const messageRoutes = {
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
  listMessages: {
    ...at('listMessages'),
    who: 'person',
    summary: 'The messages of a person, by thread, what needs an answer first',
    query: messagesQuery,
    answer: messagesAnswer,
  },
  readMessages: {
    ...at('readMessages'),
    who: 'person',
    summary: 'Mark messages as read by oneself',
    body: readBody,
    answer: done,
  },
  writeMail: {
    ...at('writeMail'),
    who: 'person',
    summary: 'Write a mail in a person’s name',
    body: mailBody,
    answer: done,
  },
  takeMessage: {
    ...at('takeMessage'),
    who: 'person',
    summary: 'Let a message whose sender isn’t vouched for do what it says',
    answer: done,
  },
} as const satisfies Routes;
