import { z } from 'zod';
import { LIMITS } from '@/core/calendar/index.ts';
import { rightsSchema } from './sight.ts';

/** A person of the directory, with what the one who asks may see of their calendar. */
export const personWire = z.strictObject({
  handle: z.string(),
  name: z.string(),
  address: z.string(),
  role: z.string(),
  site: z.string(),
  colour: z.number(),
  rights: rightsSchema,
  /** How one comes to these rights, and when they next change by themselves. */
  through: z.enum(['owner', 'person', 'group', 'everyone', 'none']),
  until: z.string().nullable(),
});
export type PersonWire = z.infer<typeof personWire>;
export const peopleAnswer = z.strictObject({ people: z.array(personWire) });

const name = z.string().trim().min(1, 'nameMissing').max(LIMITS.name, `tooLong:${LIMITS.name}`);
const address = z.string().trim().toLowerCase().max(LIMITS.address).pipe(z.email('address'));
const password = z.string().min(10, 'passwordShort').max(128, 'tooLong:128');
const zone = z.string().max(64, 'zone');

export const newPerson = z.strictObject({
  name,
  address,
  role: z.string().trim().max(120).default(''),
  zone,
  password,
});
export type NewPerson = z.infer<typeof newPerson>;

export const stepIn = z.strictObject({ handle: z.string().max(64) });

/** The groups with who is in them, and whether one may change that. */
export const groupsAnswer = z.strictObject({
  groups: z.array(
    z.strictObject({
      key: z.string(),
      name: z.string(),
      members: z.array(z.strictObject({ handle: z.string(), name: z.string() })),
    }),
  ),
  mayChange: z.boolean(),
});
export type GroupsAnswer = z.infer<typeof groupsAnswer>;
export const newGroup = z.strictObject({ name });
export const membershipBody = z.strictObject({ handle: z.string().max(64), member: z.boolean() });

/** One of the calendars a person works in: their own or one they act for. */
const principal = z.strictObject({
  handle: z.string(),
  name: z.string(),
  role: z.string(),
  colour: z.number(),
  own: z.boolean(),
  calendar: z.string(),
  share: z.boolean(),
});
export type Principal = z.infer<typeof principal>;

export const frameAnswer = z.strictObject({
  me: z.strictObject({
    handle: z.string(),
    name: z.string(),
    address: z.string(),
    zone: z.string(),
    hours: z.enum(['12', '24']),
    weekFirst: z.number(),
    administrator: z.boolean(),
  }),
  principals: z.array(principal),
  demo: z.boolean(),
  /** How much one was told and hasn't read. */
  unread: z.number(),
  now: z.string(),
});
export type FrameAnswer = z.infer<typeof frameAnswer>;

export const preferences = z.strictObject({
  zone,
  hours: z.enum(['12', '24']),
  weekFirst: z.number().int().min(1).max(7),
});
export type Preferences = z.infer<typeof preferences>;
export const done = z.strictObject({ done: z.literal(true) });
