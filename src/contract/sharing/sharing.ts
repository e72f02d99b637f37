import { z } from 'zod';
import { LIMITS, SIGHTS } from '@/core/calendar/index.ts';
import { COLLECTION_KINDS, FIRST_COLLECTIONS } from '@/core/collection/index.ts';
import { KINS, TOPICS } from '@/core/review/index.ts';
import { type ContactWire, contactWire } from '../contacts.ts';
import { type ItemWire, itemWire, rangeQuery } from '../items/items.ts';
import { at, done, type Routes } from '../route.ts';
import { type TaskWire, taskWire } from '../tasks.ts';
import { linkShown } from './links.ts';
import { ruleChange } from './rules.ts';
import { type RightsWire, rightsSchema } from './sight.ts';

const linkName = z.string().trim().max(80, 'tooLong:80');

/**
 * To whom access is given: a person by handle, a group or a link by key, or everyone inside. `address` is somebody by a typed
 * address who may not be known yet, `newLink` a link that is made by being given something.
 */
export const audienceWire = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('person'), id: z.string().max(64) }),
  z.strictObject({ kind: z.literal('group'), id: z.string().max(64) }),
  z.strictObject({ kind: z.literal('everyone') }),
  z.strictObject({ kind: z.literal('link'), id: z.string().max(64) }),
  z.strictObject({
    kind: z.literal('address'),
    address: z.string().trim().toLowerCase().max(LIMITS.address).pipe(z.email('address')),
    name: z.string().trim().max(LIMITS.name, `tooLong:${LIMITS.name}`).optional(),
  }),
  z.strictObject({ kind: z.literal('newLink'), name: linkName }),
]);
export type AudienceWire = z.infer<typeof audienceWire>;

export const preset = z.string().nullable();
const named = z.strictObject({ name: z.string(), detail: z.string() });

export const instant = z.string();
export const authorship = z.strictObject({ actor: z.string(), principal: z.string() });

/**
 * One grant: standing where it has no dates, otherwise for a time. `told` is when its audience was told, if ever; `letter` what
 * became of the last letter about it to somebody outside.
 */
const grantWire = z.strictObject({
  key: z.string(),
  rights: rightsSchema,
  preset,
  from: instant.nullable(),
  until: instant.nullable(),
  state: z.enum(['now', 'toCome', 'ended']),
  since: instant,
  given: authorship,
  byAdministrator: z.boolean(),
  told: instant.nullable(),
  /** How many of those who were told have opened the message, and when the last of them did. */
  heard: z.strictObject({ told: z.number(), opened: z.number(), last: instant.nullable() }).nullable(),
  letter: z.enum(['waiting', 'sent', 'failed']).nullable(),
  used: instant.nullable(),
  /** Access that ends with this grant, since its audience gave it, or keeps it, by this grant. */
  hanging: z.array(z.string()),
});
export type GrantWire = z.infer<typeof grantWire>;

/**
 * One row of Sightlines: an audience with its grants, the standing one first. `effective` is what they come to now under the
 * house rules, nothing else counted; `cutBy` names the rules that cut them.
 */
const sightlineRow = z.strictObject({
  audience: audienceWire,
  who: named,
  outside: z.boolean(),
  role: z.boolean(),
  /** Where a link leads: its secret address, without the server's own name. */
  link: z.string().nullable(),
  /** How a link shows what it shows. */
  shown: linkShown.nullable(),
  effective: rightsSchema,
  cutBy: z.array(z.string()),
  grants: z.array(grantWire),
});
export type SightlineRow = z.infer<typeof sightlineRow>;

/** What is shared: a calendar, or a list of tasks (an empty name is the list everybody begins with). */
const sharedWire = z.strictObject({
  key: z.string(),
  name: z.string(),
  main: z.boolean(),
  kind: z.enum(COLLECTION_KINDS),
});

const sightlinesAnswer = z.strictObject({
  calendar: sharedWire,
  /** What else is the owner's and one may give access to: their calendars, then their lists. */
  others: z.array(sharedWire),
  owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
  own: z.boolean(),
  /** The asker manages access here only as an administrator, and sees no item by that. */
  asAdministrator: z.boolean(),
  suspended: z.boolean(),
  /** Who is told of the messages of the owner's meetings: themselves, and those with copies by name; `null` for a further calendar. */
  told: z.strictObject({ owner: z.boolean(), others: z.array(z.string()) }).nullable(),
  rows: z.array(sightlineRow),
  /** The directory, those first with whom the owner has most to do. */
  people: z.array(
    z.strictObject({
      handle: z.string(),
      name: z.string(),
      address: z.string(),
      detail: z.string(),
      role: z.boolean(),
      near: z.boolean(),
    }),
  ),
  groups: z.array(z.strictObject({ key: z.string(), name: z.string(), members: z.number() })),
});
export type SightlinesAnswer = z.infer<typeof sightlinesAnswer>;

/**
 * Rights thought of for an audience in place of the grant `seen` (`null`: beside what is there; rights `null`: without that
 * grant), and the days for which their view is wanted.
 */
const previewBody = z.strictObject({
  audience: audienceWire,
  rights: rightsSchema.nullable(),
  seen: z.string().nullable(),
  range: rangeQuery,
});
export type PreviewBody = z.infer<typeof previewBody>;

/**
 * One thing that can be chosen beside the rights thought of, and the rights it comes to. `needs` says what to raise first,
 * `barred` names the house rule that forbids it, or `giverHoldsLess`.
 */
export const choice = z.strictObject({
  group: z.string(),
  value: z.string(),
  rights: rightsSchema,
  needs: z.string().nullable(),
  barred: z.string().nullable(),
  /** What each house rule that bars it would have to be set to. */
  wants: z.array(ruleChange),
});
export type ChoiceWire = z.infer<typeof choice>;

export const openedItem = z.strictObject({
  id: z.string(),
  title: z.string(),
  start: z.string(),
  end: z.string(),
  allDay: z.boolean(),
  topic: z.enum(TOPICS).nullable(),
});
export type OpenedItem = z.infer<typeof openedItem>;

/** A mail of a folder as somebody would see it; `null` is what they wouldn't. */
const mailPreview = z.strictObject({
  id: z.string(),
  from: z.string(),
  at: z.string(),
  subject: z.string(),
  firstLine: z.string().nullable(),
  text: z.string().nullable(),
});

const previewAnswer = z.strictObject({
  effective: rightsSchema,
  before: rightsSchema,
  without: rightsSchema,
  withoutStep: z.string(),
  choices: z.array(choice),
  /** Whether this speaks to somebody outside the organisation. */
  outside: z.boolean(),
  /** How many people inside would see less or more than now, where what everyone gets is changed. */
  moved: z.strictObject({ more: z.number(), less: z.number() }),
  /** Coming items that everyone would come to read, where what everyone gets is raised; to be marked private with it. */
  opened: z.array(openedItem),
  preset,
  /** For the owner: what the one it speaks to shows them in turn, which giving and taking leave as it is; `null` for anyone else. */
  theirs: rightsSchema.nullable(),
  items: z.array(itemWire),
  itemsBefore: z.array(itemWire),
  /** The same of a list of tasks: the first of them. */
  tasks: z.array(taskWire),
  tasksBefore: z.array(taskWire),
  /** And of an address book. */
  contacts: z.array(contactWire),
  contactsBefore: z.array(contactWire),
  /** The newest mails of a folder likewise. */
  messages: z.array(mailPreview),
  messagesBefore: z.array(mailPreview),
});
export interface PreviewAnswer {
  readonly theirs: RightsWire | null;
  readonly effective: RightsWire;
  readonly before: RightsWire;
  readonly without: RightsWire;
  readonly withoutStep: string;
  readonly choices: readonly ChoiceWire[];
  readonly outside: boolean;
  readonly moved: { readonly more: number; readonly less: number };
  readonly opened: readonly OpenedItem[];
  readonly preset: string | null;
  readonly items: readonly ItemWire[];
  readonly itemsBefore: readonly ItemWire[];
  readonly tasks: readonly TaskWire[];
  readonly tasksBefore: readonly TaskWire[];
  readonly contacts: readonly ContactWire[];
  readonly contactsBefore: readonly ContactWire[];
  readonly messages: readonly z.infer<typeof mailPreview>[];
  readonly messagesBefore: readonly z.infer<typeof mailPreview>[];
}

const date = z.iso.date('date');
/** Days on the giver's clock, the last one included; both `null` for a standing grant. */
export const span = z.strictObject({ from: date.nullable(), until: date.nullable(), zone: z.string().max(64, 'zone') });

/** The least that would serve somebody: who they seem to be to the owner, and what it rests on. */
const suggestedLevel = z.strictObject({
  kin: z.enum(KINS),
  preset: z.string(),
  rights: rightsSchema,
  meets: z.number(),
  /** How many such people have that on other calendars the giver gives access to, where that is why. */
  elsewhere: z.number().nullable(),
});
export type SuggestedLevel = z.infer<typeof suggestedLevel>;

/** What somebody would be told of rights that are thought of (`null`: of their end), with some words. */
export const messageBody = z.strictObject({
  audience: audienceWire,
  rights: rightsSchema.nullable(),
  seen: z.string().nullable(),
  span: span.nullable().default(null),
  note: z.string().max(1000, 'tooLong:1000').default(''),
  asks: z.enum(SIGHTS).optional(),
});
export type MessageBody = z.infer<typeof messageBody>;
/** A message as it arrives: in Messages, or as a letter to somebody outside; each line in the reader's language. */
const messageAnswer = z.strictObject({
  letter: z.boolean(),
  language: z.string(),
  subject: z.string().nullable(),
  lines: z.array(z.string()),
});
export type MessageAnswer = z.infer<typeof messageAnswer>;

/**
 * Tells the audience, with a few words of one's own; `null` for not telling them. Absent, whoever was told of a grant is told of what becomes
 * of it too, and nobody else is.
 */
const tell = z.strictObject({ note: z.string().max(1000, 'tooLong:1000') }).nullable();

export const giveBody = z.strictObject({
  audience: audienceWire,
  rights: rightsSchema,
  /** The key of the grant that is changed, as the giver saw it; `null` adds one. A row changed meanwhile is refused. */
  seen: z.string().nullable(),
  span: span.nullable().optional(),
  tell: tell.optional(),
  /** Items that are marked private in the same act. */
  alsoPrivate: z.array(z.string().max(128)).max(200).optional(),
  /** What the owner asks for of theirs in the same act: one message that reads both ways. For a person inside alone. */
  asks: z.enum(SIGHTS).optional(),
});
export type GiveBody = z.infer<typeof giveBody>;
/**
 * The audience as it is called from now on (somebody typed by address, or a new link, has a name of its own then), and the key of
 * the grant that was made.
 */
const givenAnswer = z.strictObject({ audience: audienceWire, grant: z.string() });
export type GivenAnswer = z.infer<typeof givenAnswer>;
/** Several acts of giving, all of them or none. */
const giveSeveralBody = z.strictObject({
  gives: z.array(giveBody).min(1, 'listEmpty').max(200, 'listTooLong:200'),
});
export type GiveSeveralBody = z.infer<typeof giveSeveralBody>;
const takeBody = z.strictObject({ audience: audienceWire, seen: z.string(), tell: tell.optional() });
export type TakeBody = z.infer<typeof takeBody>;
/** Several grants of one calendar, taken away all or none. */
const takeSeveralBody = z.strictObject({
  takes: z.array(takeBody).min(1, 'listEmpty').max(500, 'listTooLong:500'),
});
export type TakeSeveralBody = z.infer<typeof takeSeveralBody>;
const tellBody = z.strictObject({ seen: z.string(), note: z.string().max(1000, 'tooLong:1000') });
const suspensionBody = z.strictObject({ suspended: z.boolean() });

/** All of a person's that one sees anything of: calendars, lists of tasks, address books and message folders. */
const everythingAnswer = z.strictObject({
  owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
  own: z.boolean(),
  all: z.array(
    z.strictObject({
      key: z.string(),
      kind: z.enum(COLLECTION_KINDS),
      name: z.string(),
      main: z.boolean(),
      /** Which it is of those that everybody begins with. */
      first: z.enum(FIRST_COLLECTIONS).nullable(),
      rights: rightsSchema,
      /** Whether one gives access to it; then how many rows of it stand, beside what everybody gets. */
      share: z.boolean(),
      given: z.number().nullable(),
      suspended: z.boolean(),
    }),
  ),
});
export type EverythingAnswer = z.infer<typeof everythingAnswer>;

/** Who sees what in a calendar: read, thought through, given and taken. */
export const sharingRoutes = {
  listEverything: {
    ...at('listEverything'),
    who: 'person',
    summary: 'All of a person’s that one sees anything of, of every kind',
    answer: everythingAnswer,
  },
  listSightlines: {
    ...at('listSightlines'),
    who: 'person',
    summary: 'Who sees what in a calendar',
    answer: sightlinesAnswer,
  },
  setTold: {
    ...at('setTold'),
    who: 'person',
    summary: 'Whether the owner is told of the messages of their meetings, or those with copies alone',
    body: z.strictObject({ owner: z.boolean() }),
    answer: done,
  },
  previewAccess: {
    ...at('previewAccess'),
    reads: true,
    who: 'person',
    summary: 'What an audience would get',
    body: previewBody,
    answer: previewAnswer,
  },
  suggestLevel: {
    ...at('suggestLevel'),
    reads: true,
    who: 'person',
    summary: 'The least that would serve somebody, and why',
    body: z.strictObject({ audience: audienceWire }),
    answer: z.strictObject({ suggested: suggestedLevel.nullable() }),
  },
  previewMessage: {
    ...at('previewMessage'),
    reads: true,
    who: 'person',
    summary: 'The message that would tell an audience of what it gets',
    body: messageBody,
    answer: messageAnswer,
  },
  giveAccess: {
    ...at('giveAccess'),
    who: 'person',
    summary: 'Give an audience these rights',
    body: giveBody,
    answer: givenAnswer,
  },
  giveSeveral: {
    ...at('giveSeveral'),
    who: 'person',
    summary: 'Give several audiences their rights: all or none',
    body: giveSeveralBody,
    answer: done,
  },
  takeAccess: {
    ...at('takeAccess'),
    who: 'person',
    summary: 'Take an audience’s own rights away',
    body: takeBody,
    answer: done,
  },
  takeSeveral: {
    ...at('takeSeveral'),
    who: 'person',
    summary: 'Take several audiences’ rights away: all or none',
    body: takeSeveralBody,
    answer: done,
  },
  tellOfAccess: {
    ...at('tellOfAccess'),
    who: 'person',
    summary: 'Tell an audience of what it was given',
    body: tellBody,
    answer: done,
  },
  suspendSharing: {
    ...at('suspendSharing'),
    who: 'person',
    summary: 'Suspend all sharing of a calendar, or resume it (its owner)',
    body: suspensionBody,
    answer: done,
  },
} as const satisfies Routes;
