import { z } from 'zod';
import { LIMITS, SCOPES, SIGHTS } from '@/core/calendar/index.ts';
import { TOPICS } from '@/core/review/index.ts';
import { type ItemWire, itemWire, rangeQuery } from './items.ts';
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

const preset = z.string().nullable();
const named = z.strictObject({ name: z.string(), detail: z.string() });

const instant = z.string();
const hand = z.strictObject({ actor: z.string(), principal: z.string() });

/**
 * One grant: standing where it has no dates, otherwise for a time. `told` is when its audience was told, if ever; `letter` what
 * became of the last letter about it to somebody outside.
 */
export const grantWire = z.strictObject({
  key: z.string(),
  rights: rightsSchema,
  preset,
  from: instant.nullable(),
  until: instant.nullable(),
  state: z.enum(['now', 'toCome', 'ended']),
  since: instant,
  given: hand,
  byAdministrator: z.boolean(),
  told: instant.nullable(),
  letter: z.enum(['waiting', 'sent', 'failed']).nullable(),
  used: instant.nullable(),
});
export type GrantWire = z.infer<typeof grantWire>;

/**
 * One row of Sightlines: an audience with its grants, the standing one first. `effective` is what they come to now under the
 * house rules, nothing else counted; `cutBy` names the rules that cut them.
 */
export const sightlineRow = z.strictObject({
  audience: audienceWire,
  who: named,
  outside: z.boolean(),
  role: z.boolean(),
  /** Where a link leads: its secret address, without the server's own name. */
  link: z.string().nullable(),
  effective: rightsSchema,
  cutBy: z.array(z.string()),
  grants: z.array(grantWire),
});
export type SightlineRow = z.infer<typeof sightlineRow>;

export const sightlinesAnswer = z.strictObject({
  calendar: z.strictObject({ key: z.string(), name: z.string(), main: z.boolean() }),
  /** The owner's other calendars on which one may give access too. */
  others: z.array(z.strictObject({ key: z.string(), name: z.string(), main: z.boolean() })),
  owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
  own: z.boolean(),
  /** One gives and takes here as an administrator alone, and sees no item by it. */
  asAdministrator: z.boolean(),
  suspended: z.boolean(),
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
export const previewBody = z.strictObject({
  audience: audienceWire,
  rights: rightsSchema.nullable(),
  seen: z.string().nullable(),
  range: rangeQuery,
});
export type PreviewBody = z.infer<typeof previewBody>;

/** A house rule, and a value for it. */
const ruleChange = z.strictObject({
  rule: z.enum(['everyoneSight', 'outsideSight', 'outsideReach', 'outsideExtras', 'linkSight', 'linksBy']),
  wanted: z.string().max(20),
});
export type RuleChange = z.infer<typeof ruleChange>;

/**
 * One thing that can be chosen beside the rights thought of, and the rights it comes to. `needs` says what to raise first,
 * `barred` names the house rule that forbids it, or `giverHoldsLess`.
 */
const choice = z.strictObject({
  group: z.string(),
  value: z.string(),
  rights: rightsSchema,
  needs: z.string().nullable(),
  barred: z.string().nullable(),
  /** What each house rule that bars it would have to be set to. */
  wants: z.array(ruleChange),
});
export type ChoiceWire = z.infer<typeof choice>;

const openedItem = z.strictObject({
  id: z.string(),
  title: z.string(),
  start: z.string(),
  end: z.string(),
  allDay: z.boolean(),
  topic: z.enum(TOPICS).nullable(),
});
export type OpenedItem = z.infer<typeof openedItem>;

export const previewAnswer = z.strictObject({
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
  items: z.array(itemWire),
  itemsBefore: z.array(itemWire),
});
export interface PreviewAnswer {
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
}

const date = z.iso.date('date');
/** Days on the giver's clock, the last one included; both `null` for a standing grant. */
const span = z.strictObject({ from: date.nullable(), until: date.nullable(), zone: z.string().max(64, 'zone') });
/** Tells the audience, with a few words of one's own; absent or `null` for not telling them. */
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
});
export type GiveBody = z.infer<typeof giveBody>;
/**
 * The audience as it is called from now on (somebody typed by address, or a new link, has a name of its own then), and the key of
 * the grant that was made.
 */
export const givenAnswer = z.strictObject({ audience: audienceWire, grant: z.string() });
export type GivenAnswer = z.infer<typeof givenAnswer>;
/** Several acts of giving, all of them or none. */
export const giveSeveralBody = z.strictObject({
  gives: z.array(giveBody).min(1, 'listEmpty').max(200, 'listTooLong:200'),
});
export type GiveSeveralBody = z.infer<typeof giveSeveralBody>;
export const takeBody = z.strictObject({ audience: audienceWire, seen: z.string(), tell: tell.optional() });
export type TakeBody = z.infer<typeof takeBody>;
/** Several grants of one calendar, taken away all or none. */
export const takeSeveralBody = z.strictObject({
  takes: z.array(takeBody).min(1, 'listEmpty').max(500, 'listTooLong:500'),
});
export type TakeSeveralBody = z.infer<typeof takeSeveralBody>;
export const tellBody = z.strictObject({ seen: z.string(), note: z.string().max(1000, 'tooLong:1000') });
export const suspensionBody = z.strictObject({ suspended: z.boolean() });

/** One line of the history: what an audience was given, when that record began and ended, and who gave it. */
export const historyAnswer = z.strictObject({
  entries: z.array(
    z.strictObject({
      key: z.string(),
      audience: audienceWire,
      name: z.string(),
      rights: rightsSchema,
      preset,
      from: instant.nullable(),
      until: instant.nullable(),
      recorded: instant,
      replaced: instant.nullable(),
      given: hand,
    }),
  ),
});
export type HistoryAnswer = z.infer<typeof historyAnswer>;

/** A question: can this audience see this item, and why; now, or at an instant that has passed. */
export const askBody = z.strictObject({
  audience: audienceWire,
  item: z.string().max(128),
  at: z.iso.datetime({ error: 'date' }).nullable(),
});
export type AskBody = z.infer<typeof askBody>;

/** A step on the way to an answer; which facts it carries depends on its kind. */
const askStep = z.strictObject({
  step: z.string(),
  facts: z.record(z.string(), z.string()),
});
export const askAnswer = z.strictObject({
  at: instant,
  name: z.string(),
  seen: z.enum(['nothing', 'busy', 'withheld', 'title', 'outline', 'full']),
  item: z.strictObject({ title: z.string().nullable(), start: z.string(), end: z.string(), allDay: z.boolean() }),
  steps: z.array(askStep),
});
export type AskAnswer = z.infer<typeof askAnswer>;

/** How many people see an item in which way, and the named ones by name; `links` are the links that show it. */
export const itemSightAnswer = z.strictObject({
  links: z.array(z.strictObject({ seen: z.string(), name: z.string() })),
  levels: z.array(z.strictObject({ seen: z.string(), people: z.number(), names: z.array(z.string()) })),
});
export type ItemSightAnswer = z.infer<typeof itemSightAnswer>;

/** Something more open than it should be: why, and what mends it in one step. */
const finding = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('sensitive'),
    item: openedItem,
    version: z.number(),
    series: z.boolean(),
    people: z.number(),
  }),
  z.strictObject({ kind: z.literal('everyone'), sight: z.enum(SIGHTS), seen: z.string() }),
  z.strictObject({
    kind: z.literal('unused'),
    audience: audienceWire,
    name: z.string(),
    seen: z.string(),
    preset,
    lastUsed: instant.nullable(),
  }),
  z.strictObject({ kind: z.literal('endless'), audience: audienceWire, name: z.string(), seen: z.string(), preset }),
  z.strictObject({
    kind: z.literal('link'),
    audience: audienceWire,
    name: z.string(),
    seen: z.string(),
    sight: z.enum(SIGHTS),
  }),
  z.strictObject({
    kind: z.literal('leftGroup'),
    audience: audienceWire,
    name: z.string(),
    seen: z.string(),
    preset,
    group: z.string(),
    left: instant,
  }),
  /** People named with exactly what they would get without: their rows could go. */
  z.strictObject({
    kind: z.literal('spare'),
    people: z.array(z.strictObject({ audience: audienceWire, name: z.string(), seen: z.string() })),
  }),
]);
export type Finding = z.infer<typeof finding>;
const ownWord = z.strictObject({
  word: z.string().trim().min(1, 'wordMissing').max(60, 'tooLong:60'),
  topic: z.enum([...TOPICS, 'never']),
});
export const findingsAnswer = z.strictObject({
  findings: z.array(finding),
  words: z.array(ownWord),
  mayChangeWords: z.boolean(),
});
export type FindingsAnswer = z.infer<typeof findingsAnswer>;
/** One's own words by which an item looks sensitive, in place of the ones before. */
export const wordsBody = z.strictObject({ words: z.array(ownWord).max(300, 'listTooLong:300') });
export type WordsBody = z.infer<typeof wordsBody>;

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

const ceilings = z.strictObject({
  everyoneSight: z.enum(SIGHTS),
  outsideSight: z.enum(SIGHTS),
  outsideReach: z.enum(SCOPES),
  outsideExtras: z.boolean(),
  linkSight: z.enum(SIGHTS),
});
export type CeilingsWire = z.infer<typeof ceilings>;
/**
 * The organisation's ceilings on main calendars; those on further ones, `null` where they are the same; what everyone inside
 * gets of a new calendar; who may make links.
 */
export const houseRulesWire = z.strictObject({
  main: ceilings,
  further: ceilings.nullable(),
  startSight: z.enum(SIGHTS),
  linksBy: z.enum(['sharers', 'administrators', 'nobody']),
});
export type HouseRulesWire = z.infer<typeof houseRulesWire>;
export const houseRulesAnswer = z.strictObject({ rules: houseRulesWire, mayChange: z.boolean(), cut: z.number() });

/** A wish that house rules be set to exactly this. */
export const wishBody = z.strictObject({
  changes: z.array(ruleChange).min(1, 'listEmpty').max(6),
  further: z.boolean(),
  note: z.string().trim().max(1000, 'tooLong:1000'),
});
export type WishBody = z.infer<typeof wishBody>;
export const wishAnswerBody = z.strictObject({
  answer: z.enum(['changed', 'left']),
  note: z.string().trim().max(1000, 'tooLong:1000'),
});
export type WishAnswerBody = z.infer<typeof wishAnswerBody>;
