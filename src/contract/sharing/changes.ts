import { z } from 'zod';
import { MOST_CHANGES } from '../mosts.ts';
import { at, type Routes } from '../route.ts';
import { audienceWire, span } from './sharing.ts';
import { rightsSchema } from './sight.ts';

/**
 * One change of who has access: on whose calendar (a handle or an address; `calendar` for a further one by its key), for whom, and what
 * (`rights` of `null` take away). Without `seen` it is whatever stands there that is replaced; with it, that grant and no other. `note` tells
 * whoever is concerned, `null` doesn't, and absent it is told to whoever was told of it before.
 */
const change = z.strictObject({
  of: z.string().trim().toLowerCase().max(254).optional(),
  calendar: z.string().max(64).optional(),
  audience: audienceWire,
  rights: rightsSchema.nullable(),
  span: span.nullable().optional(),
  seen: z.string().max(64).optional(),
  note: z.string().max(1000, 'tooLong:1000').nullable().optional(),
});
export type GrantChange = z.infer<typeof change>;

/** Up to a thousand changes: all of them or none. `dryRun` says what they would come to, and changes nothing. */
export const changesBody = z.strictObject({
  changes: z.array(change).min(1, 'listEmpty').max(MOST_CHANGES, `listTooLong:${MOST_CHANGES}`),
  dryRun: z.boolean().default(false),
});
export type ChangesBody = z.infer<typeof changesBody>;

/** What each change came to, or would: what stood by name before, and stands after. The second pair is worked out by a `dryRun` alone. */
const changesAnswer = z.strictObject({
  changed: z.boolean(),
  results: z.array(
    z.strictObject({
      calendar: z.string(),
      owner: z.string(),
      who: z.string(),
      before: rightsSchema.nullable(),
      after: rightsSchema.nullable(),
      /** What a person gets in all, through groups and as everyone inside too, before it and after; `null` for a group, and for whoever isn't known yet. */
      had: rightsSchema.nullable(),
      has: rightsSchema.nullable(),
    }),
  ),
});
export type ChangesAnswer = z.infer<typeof changesAnswer>;

/** Many changes of access at once. */
export const changesRoutes = {
  changeGrants: {
    ...at('changeGrants'),
    who: 'person',
    summary: 'Give and take access on many calendars: all or none, or only say what it would come to',
    body: changesBody,
    mostBytes: 1_500_000,
    answer: changesAnswer,
  },
} as const satisfies Routes;
