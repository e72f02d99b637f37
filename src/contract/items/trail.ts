import { z } from 'zod';
import { at, type Routes } from '../route.ts';
import { type ItemWire, itemWire, writtenAnswer } from './items.ts';

/** What happened to an item: who did it, for whom, when, and what was otherwise before, as the one who asks sees both. */
const trailAnswer = z.strictObject({
  entries: z.array(
    z.strictObject({
      key: z.string(),
      at: z.string(),
      actor: z.string(),
      /** Who was behind the actor, where that is an account several people use. */
      hands: z.string().nullable(),
      principal: z.string(),
      verb: z.string(),
      changed: z.array(
        z.strictObject({ field: z.string(), before: z.string().nullable(), after: z.string().nullable() }),
      ),
      /** Whether it was the asker's own act, and can still be undone. */
      undo: z.boolean(),
    }),
  ),
  cut: z.boolean(),
});
export type TrailAnswer = z.infer<typeof trailAnswer>;

const removedAnswer = z.strictObject({
  removed: z.array(z.strictObject({ at: z.string(), by: z.string(), item: itemWire })),
  cut: z.boolean(),
});
export interface RemovedAnswer {
  readonly removed: readonly { readonly at: string; readonly by: string; readonly item: ItemWire }[];
  readonly cut: boolean;
}

/** What happened here, and bringing back what was removed. */
export const trailRoutes = {
  readTrail: {
    ...at('readTrail'),
    who: 'person',
    summary: 'What happened to an item, for whoever runs its calendar',
    answer: trailAnswer,
  },
  listRemoved: {
    ...at('listRemoved'),
    who: 'person',
    summary: 'What was removed in the last thirty days and may be brought back',
    answer: removedAnswer,
  },
  bringBack: {
    ...at('bringBack'),
    who: 'person',
    summary: 'Bring back a removed item, with all that was removed with it',
    answer: writtenAnswer,
  },
} as const satisfies Routes;
