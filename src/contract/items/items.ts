import { z } from 'zod';
import {
  ANSWERS,
  AS_SET_FIELDS,
  CONTENT_FIELDS,
  type FieldName,
  type FieldSeenAt,
  itemFields,
  LIMITS,
  LONG_TEXTS,
  newItemFields,
  pick,
  type Sight,
  STATUSES,
  sentFields,
  specOf,
} from '@/core/calendar/index.ts';
import { MAY_NOTHING } from '../may-nothing.ts';
import { workHours } from '../people/hours.ts';
import { at, type Routes } from '../route.ts';
import { rightsSchema } from '../sharing/sight.ts';
import { type Version, version } from '../version.ts';

const party = z.strictObject({ name: z.string().nullable(), address: z.string() });

/** What may be done with an item: `move` is into another calendar, with all that is held of it. */
const may = { may: z.strictObject({ change: z.boolean(), remove: z.boolean(), move: z.boolean() }).optional() };
/** Whether the calendar's owner calls the meeting. */
const called = { calledHere: z.literal(true).optional() };
const id = { id: z.string() };

/** Every field as it is sent: the written ones by the table of fields, the others as they are made. */
const sent = {
  ...pick(sentFields, CONTENT_FIELDS),
  start: z.string(),
  end: z.string(),
  allDay: z.boolean(),
  organiser: party.nullable(),
  attendees: z
    .array(
      party.extend({
        answer: z.enum(ANSWERS),
        role: z.literal('may').optional(),
        kind: z.enum(['group', 'room', 'thing']).optional(),
        by: z.string().optional(),
      }),
    )
    .nullable(),
  repeats: z
    .strictObject({ rule: z.string().nullable(), added: z.array(z.string()), left: z.array(z.string()) })
    .nullable(),
  createdBy: party.nullable(),
};
type Sent = typeof sent;

/** The fields that a way of seeing adds to those below it. */
const sentAt = <S extends Sight | 'briefed'>(sight: S) =>
  Object.fromEntries(Object.entries(sent).filter(([name]) => specOf(name as FieldName).sight === sight)) as {
    [K in Extract<FieldSeenAt<S>, keyof Sent>]: Sent[K];
  };
const busy = sentAt('busy');
const title = { ...busy, ...sentAt('title') };
const outline = { ...title, ...sentAt('outline') };
const full = { ...outline, ...sentAt('full') };
const briefed = { ...full, ...sentAt('briefed') };

/** Values as they are set, for the owner and those who may change all: beside the view, never part of it. */
const asSet = z.strictObject({
  shows: z.enum(STATUSES),
  ownerAnswer: z.enum(ANSWERS).nullable(),
  cancelled: z.boolean(),
  zone: z.string(),
  endZone: z.string().nullable(),
  /** Of a hold that is one of several: which of its set it is, and when it frees itself. */
  hold: z
    .strictObject({ letter: z.string(), number: z.number(), of: z.number(), lapses: z.string().nullable() })
    .nullable(),
  ...pick(sentFields, AS_SET_FIELDS),
  version: z.number(),
  series: z.boolean(),
  created: z.strictObject({ at: z.string(), actor: z.string(), principal: z.string() }),
  changed: z.strictObject({ at: z.string(), actor: z.string(), principal: z.string() }),
});
export type AsSet = z.infer<typeof asSet>;
/** Whether the viewer may put a change of it forward (they may not change it themselves). */
const forward = { maySuggest: z.literal(true).optional() };
/** Whether the viewer may remove it though they see it below full: by this id, and without a version, which such a view doesn't have. */
const removal = { mayRemove: z.literal(true).optional() };
/** Whether the viewer may answer it in the owner's name: it is an invitation to them. */
const answering = { mayAnswer: z.literal(true).optional() };
/** Which fields are too long for a list of items and are read with the item itself. */
const atItem = { atItem: z.array(z.enum([...LONG_TEXTS, 'attendees', 'repeats'])).optional() };
const arranged = {
  ...may,
  ...called,
  ...forward,
  ...answering,
  ...atItem,
  asSet: asSet.optional(),
  version: z.number().optional(),
};

/** An item as one viewer gets it. Strict: a key that the sight doesn't have fails. */
const itemUnion = z.union([
  z.strictObject({ ...id, ...busy, ...removal }),
  z.strictObject({ ...id, ...busy, withheld: z.literal(true) }),
  z.strictObject({ ...id, ...title, ...forward, ...removal }),
  z.strictObject({ ...id, ...outline, ...forward, ...removal, ...answering }),
  z.strictObject({ ...id, ...full, ...arranged }),
  z.strictObject({ ...id, ...briefed, ...arranged }),
]);

/** The same, read without knowing which way it is seen: every field that isn't there is absent. */
const anyItem = z.strictObject({
  ...id,
  ...busy,
  ...z
    .strictObject({ withheld: z.literal(true), ...briefed })
    .partial()
    .omit({ start: true, end: true, allDay: true, shows: true }).shape,
  ...arranged,
  ...removal,
});
export type ItemWire = ReadonlyDeep<z.infer<typeof anyItem>>;
type ReadonlyDeep<T> = T extends readonly (infer E)[]
  ? readonly ReadonlyDeep<E>[]
  : T extends object
    ? { readonly [K in keyof T]: ReadonlyDeep<T[K]> }
    : T;

export const itemWire = itemUnion as unknown as z.ZodType<ItemWire>;

const date = z.iso.date('date');
const zone = z.string().max(64, 'zone');

/** Which days of a calendar are wanted: dates in a zone, the last not included, at most 100 days. */
export const rangeQuery = z.strictObject({ from: date, to: date, zone });
export type RangeQuery = z.infer<typeof rangeQuery>;
/** The same, and through whose eyes: `everyone`, `person:HANDLE` or `group:KEY`; absent for one's own. */
const itemsQuery = rangeQuery.extend({
  as: z.string().max(80).optional(),
  /** Behind how many items to go on, where an answer before said that there are more. */
  after: z.coerce.number().int().min(0).max(1_000_000).optional(),
});
export type ItemsQuery = z.infer<typeof itemsQuery>;

/** Who a calendar belongs to, what one may do with it, and when that next changes by itself. */
const boardHead = z.strictObject({
  calendar: z.strictObject({
    key: z.string(),
    name: z.string(),
    zone: z.string(),
    main: z.boolean(),
    description: z.string(),
  }),
  /** The owner's other calendars that one sees, the main one first. */
  others: z.array(z.strictObject({ key: z.string(), name: z.string(), main: z.boolean() })),
  owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
  /** When the owner works, on their own clock. */
  hours: workHours,
  hoursZone: z.string(),
  rights: rightsSchema,
  own: z.boolean(),
  may: z.strictObject(
    Object.fromEntries(Object.keys(MAY_NOTHING).map((name) => [name, z.boolean()])) as {
      [K in keyof typeof MAY_NOTHING]: z.ZodBoolean;
    },
  ),
  accessChangesAt: z.string().nullable(),
  /**
   * Many people read titles here. The owner and those who may change all items are told, so that sensitive titles are noticed while they
   * are typed.
   */
  widelyRead: z.boolean(),
  /** Whose eyes this is seen through, where not one's own. */
  as: z.string().nullable(),
});
export type BoardHead = z.infer<typeof boardHead>;

/** Set where the answer was full: how many items there were, to ask on with `after`. */
export const more = z.number().nullable();

/** The version of the answer, for a window that follows changes; `null` where nobody listens. */
export const asOf = { version: version.nullable() };

export const itemsAnswer = z.strictObject({
  head: boardHead,
  items: z.array(itemWire),
  cutShort: z.boolean(),
  more,
  ...asOf,
});
export interface ItemsAnswer {
  readonly head: BoardHead;
  readonly items: readonly ItemWire[];
  readonly cutShort: boolean;
  readonly more: number | null;
  readonly version: Version | null;
}

/** Booked minutes by day over a range, computed from the views the viewer gets. */
export const loadDay = z.strictObject({ date, booked: z.number(), clashes: z.number() });
const loadAnswer = z.strictObject({
  days: z.array(loadDay),
  /** Not all of it could be counted: the days hold more than an answer does. */
  cutShort: z.boolean(),
  ...asOf,
});
export type LoadAnswer = z.infer<typeof loadAnswer>;

/**
 * A time as people write it: wall-clock texts in a zone, or dates (the last not included) where all day. The end is on the clock of
 * `endZone` where that is given; not given it is on the start's, and the zone an item ended in already stays with it.
 */
export const when = z.strictObject({
  start: z.string().max(20),
  end: z.string().max(20),
  allDay: z.boolean(),
  zone,
  endZone: zone.nullable().optional(),
});

const repeat = z.strictObject({ rule: z.string().max(500).nullable() });
/**
 * Days that were picked by hand: all of a series that has no rule, and those beside the rule of one that has. One at another hour than the
 * series is a date and a time on its clock.
 */
const dates = z.array(z.union([z.iso.date(), z.iso.datetime({ local: true })], 'date')).max(366, 'tooManyPicked:366');

/**
 * Whom the sender would have there. Names of people inside are those of the directory, whatever is sent; what anybody answered is never
 * taken from here, nor who calls it.
 */
const invited = z.strictObject({
  address: z.string().trim().toLowerCase().max(LIMITS.address).pipe(z.email('address')),
  name: z.string().trim().max(LIMITS.name, `tooLong:${LIMITS.name}`).nullable().default(null),
  role: z.enum(['must', 'may']).default('must'),
  /** The group they are asked as one of: everybody in it is asked, whoever the sender knew to be. */
  group: z.string().max(64).nullable().default(null),
});
export const people = z.array(invited).max(LIMITS.invited, `tooManyPeople:${LIMITS.invited}`);
export type InvitedInput = z.infer<typeof invited>;

export const newItem = z.strictObject({
  when,
  repeat: repeat.optional(),
  dates: dates.optional(),
  ...newItemFields,
  /** Who is asked to it: it becomes a meeting that the calendar's owner calls. */
  people: people.optional(),
});
export type NewItem = z.infer<typeof newItem>;

/** The touched fields of an item and the version seen; `scope` says whether one occurrence of a series is meant, it and all later ones, or all. */
export const itemPatch = z.strictObject({
  version: z.number().int(),
  scope: z.enum(['one', 'later', 'all']).default('one'),
  when: when.optional(),
  repeat: repeat.optional(),
  dates: dates.optional(),
  /** Of the dates that were left out of a series, those that stay so; the others come back. */
  left: z.array(z.string().max(40)).max(2000).optional(),
  /** Who is to be there from now on, all of them. */
  people: people.optional(),
  /** The sender says that everybody asked shall hear of it, whatever it is. */
  tellAll: z.boolean().optional(),
  /** Whether it stays where it is when room is made: said by whoever arranges all, and to nobody else. */
  ...z.strictObject(pick(itemFields, AS_SET_FIELDS)).partial().shape,
  fields: z.strictObject(pick(itemFields, CONTENT_FIELDS)).partial().default({}),
});
export type ItemPatch = z.infer<typeof itemPatch>;

export const removeQuery = z.strictObject({
  /** The version seen; only what is seen below full, and so has none, is removed without. */
  version: z.coerce.number().int().optional(),
  scope: z.enum(['one', 'later', 'all']).default('one'),
});

/** What a write answers: the item as the writer now sees it, if they do, and a token that undoes it for a while. */
export const writtenAnswer = z.strictObject({
  item: itemWire.nullable(),
  undo: z.string(),
  /** What is said to others for it, where anything is: to how many, how many of them outside, and until when it can be taken back. */
  sending: z
    .strictObject({
      key: z.string(),
      to: z.number(),
      outside: z.number(),
      /** `null` where it waits for somebody who may speak for the owner. */
      leaves: z.string().nullable(),
    })
    .nullable()
    .optional(),
});
export interface WrittenAnswer {
  readonly item: ItemWire | null;
  readonly undo: string;
  readonly sending?:
    | {
        readonly key: string;
        readonly to: number;
        readonly outside: number;
        readonly leaves: string | null;
      }
    | null
    | undefined;
}

const undoBody = z.strictObject({ undo: z.string().max(800) });

/** A repeat that isn't saved yet, from its first start. */
export const repeatBody = z.strictObject({ when, rule: z.string().max(500) });
export const repeatAnswer = z.strictObject({
  /** The next occurrences' starts, as wall-clock texts of the zone. */
  dates: z.array(z.string()),
  /** Starts that a clock change leaves out. */
  skipped: z.array(z.string()),
  /** Whether there are no more than those. */
  ends: z.boolean(),
});

/** What happens in a calendar: read and written. */
export const itemRoutes = {
  listItems: {
    ...at('listItems'),
    who: 'person',
    summary: 'What happens in a range, as one sees it, or as an audience would',
    query: itemsQuery,
    answer: itemsAnswer,
  },
  listLoad: {
    ...at('listLoad'),
    who: 'person',
    summary: 'Booked minutes by day, from what one sees',
    query: rangeQuery,
    answer: loadAnswer,
  },
  createItem: {
    ...at('createItem'),
    who: 'person',
    summary: 'Add an item in the owner’s name',
    body: newItem,
    answer: writtenAnswer,
  },
  readItem: {
    ...at('readItem'),
    who: 'person',
    summary: 'One item seen in full',
    answer: itemWire,
  },
  changeItem: {
    ...at('changeItem'),
    who: 'person',
    summary: 'Change the touched fields of an item',
    body: itemPatch,
    answer: writtenAnswer,
  },
  removeItem: {
    ...at('removeItem'),
    who: 'person',
    summary: 'Remove an item',
    query: removeQuery,
    answer: writtenAnswer,
  },
  previewRepeat: {
    ...at('previewRepeat'),
    who: 'person',
    summary: 'The next dates of a repeat, and those a clock change leaves out',
    body: repeatBody,
    reads: true,
    answer: repeatAnswer,
  },
  undo: {
    ...at('undo'),
    who: 'person',
    summary: 'Take back one’s own last write',
    body: undoBody,
    answer: writtenAnswer,
  },
} as const satisfies Routes;
