import { z } from 'zod';
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

/** One row of Sightlines. `effective` is what the grant comes to under the house rules; `cutBy` names those that cut it. */
export const sightlineRow = z.strictObject({
  key: z.string(),
  audience: audienceWire,
  who: named,
  rights: rightsSchema,
  effective: rightsSchema,
  cutBy: z.array(z.string()),
  preset,
  since: z.string(),
  given: z.strictObject({ actor: z.string(), principal: z.string() }),
});
export type SightlineRow = z.infer<typeof sightlineRow>;

export const sightlinesAnswer = z.strictObject({
  calendar: z.strictObject({ key: z.string(), name: z.string() }),
  owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
  own: z.boolean(),
  rows: z.array(sightlineRow),
  people: z.array(z.strictObject({ handle: z.string(), name: z.string(), address: z.string(), detail: z.string() })),
  groups: z.array(z.strictObject({ key: z.string(), name: z.string(), members: z.number() })),
  presets: z.array(z.strictObject({ name: z.string(), rights: rightsSchema })),
});
export type SightlinesAnswer = z.infer<typeof sightlinesAnswer>;

/** Rights thought of for an audience (`null`: none of their own), and the days for which their view is wanted. */
export const previewBody = z.strictObject({
  audience: audienceWire,
  rights: rightsSchema.nullable(),
  range: rangeQuery,
});
export type PreviewBody = z.infer<typeof previewBody>;

/** A choice that can't be made, and why: a misfit names what to raise, a ceiling the house rule. */
const barred = z.strictObject({ right: z.string(), value: z.string(), reason: z.string() });
export type Barred = z.infer<typeof barred>;

export const previewAnswer = z.strictObject({
  effective: rightsSchema,
  before: rightsSchema,
  without: rightsSchema,
  withoutStep: z.string(),
  misfits: z.array(z.strictObject({ right: z.string(), needs: z.string() })),
  barred: z.array(barred),
  preset,
  items: z.array(itemWire),
  itemsBefore: z.array(itemWire),
});
export interface PreviewAnswer {
  readonly effective: RightsWire;
  readonly before: RightsWire;
  readonly without: RightsWire;
  readonly withoutStep: string;
  readonly misfits: readonly { right: string; needs: string }[];
  readonly barred: readonly Barred[];
  readonly preset: string | null;
  readonly items: readonly ItemWire[];
  readonly itemsBefore: readonly ItemWire[];
}

export const giveBody = z.strictObject({
  audience: audienceWire,
  rights: rightsSchema,
  /** The key of the row as the giver saw it; `null` where they saw none. A row changed meanwhile is refused. */
  seen: z.string().nullable(),
});
export type GiveBody = z.infer<typeof giveBody>;
export const takeBody = z.strictObject({ audience: audienceWire, seen: z.string() });
