import { z } from 'zod';
import { at, type Routes } from '../route.ts';

/** A calendar one may add to. */
const target = z.strictObject({
  key: z.string(),
  name: z.string(),
  main: z.boolean(),
  owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number(), own: z.boolean() }),
});
export type Target = z.infer<typeof target>;

/** As many calendars are offered to put something into. */
export const MOST_TARGETS = 200;

export const targetRoutes = {
  listTargets: {
    ...at('listTargets'),
    who: 'person',
    summary: 'The calendars one may add to: of those one runs, one’s own, and further ones one was given',
    answer: z.strictObject({ calendars: z.array(target), cutShort: z.boolean() }),
  },
} as const satisfies Routes;
