import { z } from 'zod';
import { LANGUAGES } from '@/messages/languages.ts';
import { workHours } from './people/hours.ts';
import { phone, zone } from './people/people.ts';
import { at, done, type Routes } from './route.ts';

/** One of the calendars a person works in: their own or one they act for. */
const principal = z.strictObject({
  handle: z.string(),
  name: z.string(),
  role: z.string(),
  colour: z.number(),
  own: z.boolean(),
  calendar: z.string(),
  share: z.boolean(),
  /** Whether one sees something of a further calendar of theirs. */
  further: z.boolean(),
  /** Whether one sees something of their tasks, and of their contacts. */
  tasks: z.boolean(),
  contacts: z.boolean(),
});
export type Principal = z.infer<typeof principal>;

/** In which order a person reads and writes a date's day, month and year. */
const dateOrder = z.enum(['dmy', 'mdy', 'ymd']);

const frameAnswer = z.strictObject({
  me: z.strictObject({
    handle: z.string(),
    name: z.string(),
    address: z.string(),
    phone: z.string(),
    zone: z.string(),
    hours: z.enum(['12', '24']),
    weekFirst: z.number(),
    workHours,
    secondZone: z.string().nullable(),
    colour: z.number(),
    dateOrder,
    language: z.enum(LANGUAGES),
    administrator: z.boolean(),
    inside: z.boolean(),
  }),
  principals: z.array(principal),
  demo: z.boolean(),
  /** How much one was told and hasn't read. */
  unread: z.number(),
  /** How many tasks wait for one's yes. */
  tasksAsked: z.number(),
  /** How much is more open on one's own calendars than it should be, as it was last counted. */
  findings: z.number(),
  /** Of an account that several people use: whether who is behind this window has to be said, who it is, and who said so of late. */
  hands: z.strictObject({ asks: z.boolean(), name: z.string().nullable(), before: z.array(z.string()) }).nullable(),
  now: z.string(),
});
export type FrameAnswer = z.infer<typeof frameAnswer>;

const preferences = z.strictObject({
  phone: phone.optional(),
  zone,
  hours: z.enum(['12', '24']),
  weekFirst: z.number().int().min(1).max(7),
  dateOrder,
  language: z.enum(LANGUAGES).optional(),
  workHours: workHours.optional(),
  secondZone: zone.nullable().optional(),
  /** One of the six colours that people have; others see it too. */
  colour: z.number().int().min(0).max(5).optional(),
});
export type Preferences = z.infer<typeof preferences>;

/** What the whole of a window stands on: who is here, how times are shown, what changes. */
export const frameRoutes = {
  readFrame: {
    ...at('readFrame'),
    who: 'person',
    summary: 'Who is signed in and whom they act for',
    answer: frameAnswer,
  },
  savePreferences: {
    ...at('savePreferences'),
    who: 'person',
    summary: 'How times are shown',
    body: preferences,
    answer: done,
  },
  live: {
    ...at('live'),
    who: 'person',
    by: 'session',
    summary: 'A stream that says which calendars changed',
    query: z.strictObject({ page: z.string().max(40).optional() }),
    rawAnswer: 'text/event-stream',
  },
  openapi: {
    ...at('openapi'),
    who: 'open',
    summary: 'This description',
    rawAnswer: 'application/json',
  },
} as const satisfies Routes;
