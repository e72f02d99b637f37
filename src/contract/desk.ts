import { z } from 'zod';
import { LIMITS } from '@/core/calendar/index.ts';
import { COLLECTION_KINDS } from '@/core/collection/index.ts';
import { DESK_KINDS } from '@/core/desk/index.ts';
import { itemWire } from './items/items.ts';
import { timePreferenceWire } from './openings/time-preferences.ts';
import { at, done, type Routes } from './route.ts';
import { instant, preset } from './sharing/sharing.ts';

const times = z.strictObject({ start: z.string(), end: z.string(), allDay: z.boolean() });
const someone = z.strictObject({ name: z.string(), address: z.string() });

/** What can be done with a row in one press, or begins with one. */
const DESK_ACTS = [
  'accepted',
  'tentative',
  'declined',
  'take',
  'keep',
  'another',
  'without',
  'off',
  'nudge',
  'place',
  'link',
  'move',
  'fix',
  'longer',
  'free',
  'yes',
  'no',
  'answerAsk',
  'count',
  'again',
  'reply',
  'extend',
  'takeAccess',
  'mend',
  'notice',
  'cover',
  'whoCovers',
  'done',
  'tomorrow',
  'left',
] as const;
export type DeskAct = (typeof DESK_ACTS)[number];

/** What a row is about beside its occurrences, by what it comes from. */
const about = z.discriminatedUnion('of', [
  z.strictObject({
    of: z.literal('meeting'),
    /** Whose no, proposal or silence it is about. */
    people: z.array(
      someone.extend({
        answer: z.enum(['needs-action', 'accepted', 'tentative', 'declined']),
        since: instant,
        proposes: times.nullable(),
        comment: z.string().nullable(),
      }),
    ),
  }),
  z.strictObject({
    of: z.literal('hold'),
    letter: z.string(),
    lapses: instant.nullable(),
    times: z.array(z.strictObject({ item: z.string(), version: z.number(), start: z.string(), end: z.string() })),
  }),
  z.strictObject({ of: z.literal('wish'), keep: timePreferenceWire, day: z.string() }),
  z.strictObject({
    of: z.literal('suggestion'),
    suggestion: z.string(),
    act: z.enum(['add', 'change', 'remove', 'answer']),
    who: z.string(),
    why: z.string(),
    title: z.string().nullable(),
    now: times.nullable(),
    wanted: times.nullable(),
    version: z.number().nullable(),
  }),
  z.strictObject({
    of: z.literal('ask'),
    ask: z.string(),
    who: z.string(),
    why: z.string(),
    /** Of what, by its kind and its name; `null` for the main calendar. */
    collection: z.strictObject({ kind: z.enum(COLLECTION_KINDS), name: z.string() }).nullable(),
    preset,
    until: instant.nullable(),
    outside: z.boolean(),
  }),
  /** A message, by its key where it is seen in full. */
  z.strictObject({
    of: z.literal('message'),
    message: z.string().nullable(),
    from: z.string(),
    subject: z.string(),
    at: instant,
  }),
  z.strictObject({ of: z.literal('letter'), to: z.string(), subject: z.string(), at: instant }),
  z.strictObject({
    of: z.literal('grant'),
    grant: z.string(),
    who: z.string(),
    preset,
    until: instant.nullable(),
    given: instant,
  }),
  z.strictObject({
    of: z.literal('absence'),
    absence: z.string(),
    from: instant,
    until: instant,
    /** Who is to cover; `null` where nobody is named. */
    cover: z.string().nullable(),
    /** Whether the viewer may give them the access for it. */
    mayCover: z.boolean(),
  }),
  z.strictObject({
    of: z.literal('task'),
    task: z.string(),
    list: z.string(),
    title: z.string(),
    due: z.string().nullable(),
    belongsTo: z.string().nullable(),
    notes: z.string().nullable(),
  }),
  z.strictObject({
    of: z.literal('finding'),
    finding: z.string(),
    who: z.string().nullable(),
    people: z.number().nullable(),
  }),
]);
export type DeskAbout = z.infer<typeof about>;

/** Why a row is there beside its kind. */
const because = z.discriminatedUnion('why', [
  z.strictObject({ why: z.enum(['refused', 'proposal', 'silent']), who: z.array(z.string()) }),
  z.strictObject({ why: z.literal('unset') }),
  z.strictObject({ why: z.literal('clash'), items: z.array(times.extend({ title: z.string().nullable() })) }),
  z.strictObject({ why: z.literal('journey'), needs: z.number(), has: z.number() }),
  z.strictObject({ why: z.literal('lapses'), at: instant }),
  z.strictObject({ why: z.enum(['notice', 'cover', 'unused', 'ends']) }),
]);

/** One row, as whoever has it sees it. */
export const deskRow = z.strictObject({
  key: z.string(),
  kind: z.enum(DESK_KINDS),
  /** Whose it is, by handle, and the calendar it is about. */
  for: z.string(),
  calendar: z.string(),
  due: instant.nullable(),
  part: z.enum(['now', 'soon', 'time']),
  score: z.number(),
  parts: z.strictObject({
    weight: z.number(),
    shift: z.number(),
    near: z.number(),
    atHand: z.number(),
    person: z.number(),
  }),
  items: z.array(itemWire),
  people: z.array(someone),
  about: about.nullable(),
  /** The best first: the numbers by which they are taken. */
  steps: z.array(z.strictObject({ n: z.number(), act: z.enum(DESK_ACTS), item: z.string().optional() })),
  because: z.array(because),
  /** Who else has it open. */
  open: z.array(z.string()),
  passed: z.strictObject({ to: z.string(), by: z.string(), line: z.string() }).nullable(),
  /** The same meeting asked of somebody else one answers for: that row's key, and whose it is. */
  twin: z.strictObject({ key: z.string(), for: z.string() }).nullable(),
});
export type DeskRowWire = z.infer<typeof deskRow>;

const deskAnswer = z.strictObject({
  now: instant,
  rows: z.array(deskRow),
  /** How many one put off. */
  later: z.number(),
  cut: z.boolean(),
  /** Everybody one acts for, in the order of the band: how many rows they have, and to whom a row of theirs can be passed on. */
  principals: z.array(
    z.strictObject({
      handle: z.string(),
      name: z.string(),
      address: z.string(),
      colour: z.number(),
      calendar: z.string(),
      zone: z.string(),
      own: z.boolean(),
      /** Whether what one does leaves in their name; else it waits for them, or somebody who speaks. */
      speaks: z.boolean(),
      rows: z.number(),
      acts: z.array(z.strictObject({ handle: z.string(), name: z.string() })),
      /** Where they are now, or that they are away, and until when (an instant, or the date after the last day), as one sees it; `null` where nothing says. */
      here: z.strictObject({ place: z.string().nullable(), away: z.boolean(), until: z.string() }).nullable(),
      /** What comes next for them, as one sees it, and how many minutes the way there takes, where the house knows it. */
      next: itemWire.nullable(),
      way: z.number().nullable(),
    }),
  ),
});
export type DeskAnswer = z.infer<typeof deskAnswer>;

const line = z.string().trim().max(500, 'tooLong:500').default('');
/** A step on a row. What it needs beside the row is what whoever takes it saw. */
const deskStep = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('later'), until: instant }),
  z.strictObject({ act: z.literal('left') }),
  z.strictObject({ act: z.literal('passed'), to: z.string().max(64), line }),
  z.strictObject({ act: z.literal('back') }),
  z.strictObject({
    act: z.enum(['accepted', 'tentative', 'declined']),
    comment: line,
    twin: z.boolean().default(false),
  }),
  z.strictObject({ act: z.literal('take'), attendee: z.string().max(LIMITS.address) }),
  z.strictObject({ act: z.literal('keep'), attendee: z.string().max(LIMITS.address), comment: line }),
  z.strictObject({
    act: z.enum([
      'without',
      'off',
      'nudge',
      'longer',
      'free',
      'count',
      'again',
      'takeAccess',
      'extend',
      'cover',
      'done',
      'tomorrow',
    ]),
  }),
  z.strictObject({ act: z.literal('place'), place: z.string().trim().min(1, 'placeMissing').max(LIMITS.place) }),
  z.strictObject({ act: z.literal('link'), link: z.url('link').max(LIMITS.link) }),
  z.strictObject({ act: z.literal('move'), item: z.string().max(128), start: instant }),
  z.strictObject({ act: z.literal('fix'), item: z.string().max(128) }),
  z.strictObject({ act: z.enum(['yes', 'no']), note: line }),
]);
export type DeskStep = z.infer<typeof deskStep>;

/** What a step led to: by what it is undone (an entry of the trail, what waits to be sent, or `back` of the same row); by nothing where all three are empty. */
const deskDone = z.strictObject({
  undo: z.string().nullable(),
  sendings: z.array(z.string()),
  said: z.boolean(),
});
export type DeskDone = z.infer<typeof deskDone>;

/** Whose row it is, by handle: it is looked for there alone. */
const whose = z.strictObject({ for: z.string().max(64).default('') });
const looking = z.strictObject({ others: z.array(z.string()) });

/** What needs deciding, for everybody one acts for. */
export const deskRoutes = {
  readDesk: {
    ...at('readDesk'),
    who: 'person',
    summary: 'What needs deciding, for oneself and everybody one acts for, the most pressing first',
    query: z.strictObject({ for: z.string().max(64).default('all') }),
    answer: deskAnswer,
  },
  takeDeskStep: {
    ...at('takeDeskStep'),
    who: 'person',
    summary: 'Take a step on a row of the Desk, put it off, leave it or pass it on',
    query: whose,
    body: deskStep,
    answer: deskDone,
  },
  openDeskRow: {
    ...at('openDeskRow'),
    who: 'person',
    by: 'session',
    summary: 'Say that one has a row open, and hear who else has',
    query: whose,
    body: z.strictObject({ open: z.boolean() }),
    reads: true,
    answer: looking,
  },
  readDeskPreferences: {
    ...at('readDeskPreferences'),
    who: 'person',
    summary: 'How much each kind of row counts for somebody, and who goes first for them',
    answer: z.strictObject({
      shifts: z.partialRecord(z.enum(DESK_KINDS), z.number()),
      first: z.array(z.string()),
      version: z.number(),
    }),
  },
  saveDeskPreferences: {
    ...at('saveDeskPreferences'),
    who: 'person',
    summary: 'Say how much each kind of row counts for somebody, and who goes first for them',
    body: z.strictObject({
      shifts: z.partialRecord(z.enum(DESK_KINDS), z.number().int().min(-30).max(30).multipleOf(10)),
      first: z
        .array(z.string().trim().toLowerCase().max(LIMITS.address).pipe(z.email('address')))
        .max(200, 'listTooLong:200'),
      version: z.number().int().min(0),
    }),
    answer: done,
  },
} as const satisfies Routes;
