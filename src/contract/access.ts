import { z } from 'zod';
import { SCOPES, SIGHTS } from '@/core/calendar/index.ts';
import { TOPICS } from '@/core/review/index.ts';
import { type ItemWire, itemWire, rangeQuery } from './items.ts';
import { type RightsWire, rightsSchema } from './sight.ts';

/** To whom access is given: a person by handle, a group by key, or everyone inside. */
export const audienceWire = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('person'), id: z.string().max(64) }),
  z.strictObject({ kind: z.literal('group'), id: z.string().max(64) }),
  z.strictObject({ kind: z.literal('everyone') }),
]);
export type AudienceWire = z.infer<typeof audienceWire>;

const preset = z.string().nullable();
const named = z.strictObject({ name: z.string(), detail: z.string() });

const instant = z.string();
const hand = z.strictObject({ actor: z.string(), principal: z.string() });

/** One grant: standing where it has no dates, otherwise for a time. `told` is when its audience was told, if ever. */
export const grantWire = z.strictObject({
  key: z.string(),
  rights: rightsSchema,
  preset,
  from: instant.nullable(),
  until: instant.nullable(),
  state: z.enum(['now', 'toCome', 'ended']),
  since: instant,
  given: hand,
  told: instant.nullable(),
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
  effective: rightsSchema,
  cutBy: z.array(z.string()),
  grants: z.array(grantWire),
});
export type SightlineRow = z.infer<typeof sightlineRow>;

export const sightlinesAnswer = z.strictObject({
  calendar: z.strictObject({ key: z.string(), name: z.string() }),
  owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
  own: z.boolean(),
  suspended: z.boolean(),
  rows: z.array(sightlineRow),
  people: z.array(z.strictObject({ handle: z.string(), name: z.string(), address: z.string(), detail: z.string() })),
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
export const takeBody = z.strictObject({ audience: audienceWire, seen: z.string(), tell: tell.optional() });
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

/** How many people inside see an item in which way, and the named ones by name. */
export const itemSightAnswer = z.strictObject({
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
]);
export type Finding = z.infer<typeof finding>;
export const findingsAnswer = z.strictObject({ findings: z.array(finding) });

/** What one was told of one's access to others' calendars, and what soon ends: given by oneself, or held. */
export const noticesAnswer = z.strictObject({
  notices: z.array(
    z.strictObject({
      key: z.string(),
      at: instant,
      kind: z.enum(['given', 'changed', 'taken']),
      by: z.string(),
      owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
      rights: rightsSchema.nullable(),
      until: instant.nullable(),
      note: z.string(),
      unread: z.boolean(),
      open: z.boolean(),
    }),
  ),
  ending: z.array(
    z.strictObject({
      key: z.string(),
      owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
      who: z.string(),
      held: z.boolean(),
      until: instant,
      preset,
    }),
  ),
});
export type NoticesAnswer = z.infer<typeof noticesAnswer>;

/** The organisation's ceilings, and who may change them. */
export const houseRulesWire = z.strictObject({
  everyoneSight: z.enum(SIGHTS),
  outsideSight: z.enum(SIGHTS),
  outsideReach: z.enum(SCOPES),
  outsideExtras: z.boolean(),
  linkSight: z.enum(SIGHTS),
});
export type HouseRulesWire = z.infer<typeof houseRulesWire>;
export const houseRulesAnswer = z.strictObject({ rules: houseRulesWire, mayChange: z.boolean(), cut: z.number() });
