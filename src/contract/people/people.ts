import { z } from 'zod';
import { isPhone, LIMITS } from '@/core/calendar/index.ts';
import { COLLECTION_KINDS } from '@/core/collection/index.ts';
import { at, done, type Routes } from '../route.ts';
import { rightsSchema } from '../sharing/sight.ts';

const through = z.enum(['owner', 'person', 'group', 'everyone', 'none']);

/** How one comes to what one sees, when that next changes by itself, and what one has from then on; the last two are `null` where it doesn't. */
const comeTo = { through, until: z.string().nullable(), next: rightsSchema.nullable() };

const seen = { key: z.string(), name: z.string(), rights: rightsSchema, ...comeTo };

/** A person of the directory, with what the viewer may see of their calendar. */
const personWire = z.strictObject({
  handle: z.string(),
  name: z.string(),
  address: z.string(),
  role: z.string(),
  site: z.string(),
  phone: z.string(),
  colour: z.number(),
  kind: z.enum(['person', 'role']),
  /** A room or a thing, which answers for itself; how many a room holds. */
  resource: z.enum(['room', 'thing']).nullable(),
  size: z.number().nullable(),
  rights: rightsSchema,
  ...comeTo,
  /** Their further calendars that one sees. */
  further: z.array(z.strictObject(seen)),
  /** Their lists of tasks, address books and message folders of which one sees something, where they are somebody else. */
  lists: z.array(z.strictObject({ ...seen, kind: z.enum(COLLECTION_KINDS).exclude(['calendar']) })),
});
export type PersonWire = z.infer<typeof personWire>;
/** The directory; for an administrator also those outside who were given something, and those who left. */
const peopleAnswer = z.strictObject({
  people: z.array(personWire),
  outside: z.array(
    z.strictObject({
      handle: z.string(),
      name: z.string(),
      address: z.string(),
      left: z.boolean(),
      grants: z.number(),
    }),
  ),
});
export type PeopleAnswer = z.infer<typeof peopleAnswer>;

const name = z.string().trim().min(1, 'nameMissing').max(LIMITS.name, `tooLong:${LIMITS.name}`);
const address = z.string().trim().toLowerCase().max(LIMITS.address).pipe(z.email('address'));
const password = z.string().min(10, 'passwordShort').max(128, 'tooLong:128');
export const zone = z.string().max(64, 'zone');

const role = z.string().trim().max(120, 'tooLong:120');
/** As it is written, in international form or not: what a person dials. Empty where there is none. */
export const phone = z
  .string()
  .trim()
  .max(LIMITS.phone, `tooLong:${LIMITS.phone}`)
  .refine((text) => text === '' || isPhone(text), 'phone');
const kind = z.enum(['person', 'role']);

const newPerson = z.strictObject({
  name,
  address,
  role: role.default(''),
  phone: phone.default(''),
  kind: kind.default('person'),
  zone,
  password,
});
export type NewPerson = z.infer<typeof newPerson>;

/** The first administrator, with the code that the server printed when it started. */
export const firstPerson = newPerson.extend({ code: z.string().trim().min(1, 'startCode').max(80, 'startCode') });
export type FirstPerson = z.infer<typeof firstPerson>;

/** A room or a thing: asked to meetings by its address, where it is, and how many a room holds. */
const newRoom = z.strictObject({
  name,
  address,
  resource: z.enum(['room', 'thing']),
  place: z.string().trim().max(120, 'tooLong:120').default(''),
  size: z.number().int().min(1, 'size').max(100_000, 'size').nullable().default(null),
  zone,
});
export type NewRoom = z.infer<typeof newRoom>;

/** What an administrator can set of a person. */
const personChange = z.strictObject({
  name,
  role,
  site: role,
  /** Unchanged where it is left out. */
  phone: phone.optional(),
  kind,
  administrator: z.boolean(),
});
export type PersonChange = z.infer<typeof personChange>;

/** A person as an administrator reads them before changing anything, with what leaving would end and hand on. */
const personFile = z.strictObject({
  handle: z.string(),
  name: z.string(),
  address: z.string(),
  role: z.string(),
  site: z.string(),
  phone: z.string(),
  kind,
  administrator: z.boolean(),
  inside: z.boolean(),
  /** Whether they have an account they can sign in with. */
  signsIn: z.boolean(),
  grants: z.array(
    z.strictObject({ owner: z.string(), calendar: z.string(), preset: z.string().nullable(), acts: z.boolean() }),
  ),
  groups: z.array(z.string()),
  calendars: z.array(z.strictObject({ name: z.string(), main: z.boolean() })),
});
export type PersonFile = z.infer<typeof personFile>;
/** Who leaves hands what they own on to somebody, by handle; `null` where they own nothing. */
const leaveBody = z.strictObject({ to: z.string().max(64).nullable() });
export type LeaveBody = z.infer<typeof leaveBody>;

/** An address that lets somebody choose a password once, for an administrator to hand over. */
const wayInAnswer = z.strictObject({ path: z.string(), until: z.string() });
const choosePasswordBody = z.strictObject({ token: z.string().max(200), password });
/** The numbers of people in the directory, by the addresses one knows already; who has none isn't in the answer. */
const phonesBody = z.strictObject({ addresses: z.array(address).max(500, 'listTooLong:500') });
const phonesAnswer = z.strictObject({
  phones: z.array(z.strictObject({ address: z.string(), phone: z.string() })),
});
/** Somebody outside asks for a letter with a way in, or comes in by one. */
const requestWayInBody = z.strictObject({ address });
const comeInBody = z.strictObject({ token: z.string().min(1).max(200) });

/** The organisation's domains: an address of one of them belongs to somebody inside. */
const domain = z
  .string()
  .trim()
  .toLowerCase()
  .max(253)
  .regex(/^(?=.{1,253}$)(?:[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?$/, 'domain');
const domainsWire = z.strictObject({ domains: z.array(domain).max(50, 'listTooLong:50') });

/** A directory as text with commas: read and said what would come of it, or, with `apply`, brought in whole. */
const directoryFile = z.strictObject({ text: z.string().max(240_000, 'tooLong:240000'), apply: z.boolean() });
const directoryAnswer = z.strictObject({
  added: z.array(z.strictObject({ name: z.string(), address: z.string(), groups: z.array(z.string()) })),
  changed: z.array(z.strictObject({ name: z.string(), address: z.string(), what: z.array(z.string()) })),
  same: z.number(),
  newGroups: z.array(z.string()),
  wrong: z.array(z.strictObject({ line: z.number(), text: z.string(), reason: z.string() })),
  applied: z.boolean(),
});
export type DirectoryAnswer = z.infer<typeof directoryAnswer>;

/** A further calendar of one's own, or of somebody who lets one give access for them. */
const newCalendar = z.strictObject({
  of: z.string().max(64),
  name,
  /** The group it is for: whoever is in it may arrange it, and has it among their lanes by themselves. */
  group: z.string().max(64).optional(),
});
/** What one's own calendar is called and for, and on which clock its whole days begin and end; not given it stays. */
export const calendarBody = z.strictObject({
  name,
  description: z.string().trim().max(500, 'tooLong:500'),
  zone: z.string().max(64, 'zone').optional(),
});
const newCalendarAnswer = z.strictObject({ calendar: z.string() });

/** The groups with who is in them, and whether one may change that. */
const groupsAnswer = z.strictObject({
  groups: z.array(
    z.strictObject({
      key: z.string(),
      name: z.string(),
      members: z.array(z.strictObject({ handle: z.string(), name: z.string() })),
      /** The groups that stand within this one: whoever is in them is in it. */
      within: z.array(z.strictObject({ key: z.string(), name: z.string() })),
      people: z.number(),
    }),
  ),
  mayChange: z.boolean(),
});
export type GroupsAnswer = z.infer<typeof groupsAnswer>;
/** A group's name stands in lists with semicolons between: it has none itself. */
const newGroup = z.strictObject({ name: name.refine((n) => !n.includes(';'), 'control') });
const withinBody = z.strictObject({ group: z.string().max(64), within: z.boolean() });
const membershipBody = z.strictObject({ handle: z.string().max(64), member: z.boolean() });

/** The directory, groups, further calendars, and the ways in. */
export const peopleRoutes = {
  addRoom: {
    ...at('addRoom'),
    who: 'person',
    summary: 'Add a room or a thing to the directory (administrators)',
    body: newRoom,
    answer: done,
  },
  listPeople: {
    ...at('listPeople'),
    who: 'person',
    summary: 'The directory, with what one sees of each calendar',
    answer: peopleAnswer,
  },
  addPerson: {
    ...at('addPerson'),
    who: 'person',
    by: 'session',
    summary: 'Add a person (administrators)',
    body: newPerson,
    answer: done,
  },
  readPerson: {
    ...at('readPerson'),
    who: 'person',
    summary: 'A person, with what their leaving would end and hand on (administrators)',
    answer: personFile,
  },
  changePerson: {
    ...at('changePerson'),
    who: 'person',
    by: 'session',
    summary: 'Change what the directory says of a person (administrators)',
    body: personChange,
    answer: done,
  },
  leave: {
    ...at('leave'),
    who: 'person',
    by: 'session',
    summary: 'End a person’s sign-in and access and hand on what they own (administrators)',
    body: leaveBody,
    answer: done,
  },
  makeWayIn: {
    ...at('makeWayIn'),
    who: 'person',
    by: 'session',
    summary: 'Make an address by which a person chooses a password, once (administrators)',
    answer: wayInAnswer,
  },
  choosePassword: {
    ...at('choosePassword'),
    who: 'open',
    summary: 'Choose a password by such an address',
    body: choosePasswordBody,
    answer: done,
  },
  readDirectoryFile: {
    ...at('readDirectoryFile'),
    who: 'person',
    summary: 'The directory as text with commas (administrators)',
    rawAnswer: 'text/csv',
  },
  bringInDirectory: {
    ...at('bringInDirectory'),
    who: 'person',
    by: 'session',
    summary: 'Read a directory, or bring it in (administrators)',
    body: directoryFile,
    answer: directoryAnswer,
  },
  readPhones: {
    ...at('readPhones'),
    who: 'person',
    summary: 'The numbers of people in the directory, by their addresses; nobody outside is answered any',
    body: phonesBody,
    answer: phonesAnswer,
  },
  readDomains: {
    ...at('readDomains'),
    who: 'person',
    summary: 'The organisation’s domains',
    answer: domainsWire,
  },
  changeDomains: {
    ...at('changeDomains'),
    who: 'person',
    by: 'session',
    summary: 'Set the organisation’s domains (administrators)',
    body: domainsWire,
    answer: done,
  },
  beginCalendar: {
    ...at('beginCalendar'),
    who: 'person',
    summary: 'Make a further calendar',
    body: newCalendar,
    answer: newCalendarAnswer,
  },
  changeCalendar: {
    ...at('changeCalendar'),
    who: 'person',
    summary: 'What one’s own calendar is called, and for',
    body: calendarBody,
    answer: done,
  },
  removeCalendar: {
    ...at('removeCalendar'),
    who: 'person',
    summary: 'Take one’s own further calendar away, with all that is in it',
    answer: done,
  },
  bringCalendarBack: {
    ...at('bringCalendarBack'),
    who: 'person',
    summary: 'Bring back one’s own calendar within thirty days',
    answer: done,
  },
  listGroups: {
    ...at('listGroups'),
    who: 'person',
    summary: 'The groups and who is in them',
    answer: groupsAnswer,
  },
  makeGroup: {
    ...at('makeGroup'),
    who: 'person',
    summary: 'Make a group (administrators)',
    body: newGroup,
    answer: done,
  },
  setMembership: {
    ...at('setMembership'),
    who: 'person',
    summary: 'Put somebody into a group or take them out (administrators)',
    body: membershipBody,
    answer: done,
  },
  setWithin: {
    ...at('setWithin'),
    who: 'person',
    summary: 'Put a group into a group or take it out (administrators)',
    body: withinBody,
    answer: done,
  },
  askWayIn: {
    ...at('askWayIn'),
    who: 'open',
    summary: 'Ask for a letter with a way in, as somebody outside',
    body: requestWayInBody,
    answer: done,
  },
  comeIn: {
    ...at('comeIn'),
    who: 'open',
    summary: 'Come in by a letter’s address, once',
    body: comeInBody,
    answer: done,
  },
} as const satisfies Routes;
