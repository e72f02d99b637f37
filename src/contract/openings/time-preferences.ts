import { z } from 'zod';
import { MOST_KEEPS } from '../mosts.ts';
import { at, type Routes } from '../route.ts';

const clock = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$|^24:00$/, 'time');
const days = z.array(z.number().int().min(1).max(7)).min(1, 'noDays').max(7);
const minutes = z.number().int().min(5).max(1440);
const hard = z.boolean();
const range = { days, from: clock, to: clock };
const inOrder = (keep: { from: string; to: string }) => keep.from < keep.to;

/** A standing wish of a person for their days, on their own clock; weekdays from 1, Monday. Hard, or counting against a time only. */
export const keepWire = z.union([
  z
    .strictObject({ kind: z.literal('span'), hard, ...range })
    .refine(inOrder, { message: 'endBeforeStart', path: ['to'] }),
  z
    .strictObject({ kind: z.literal('rest'), hard, ...range, minutes })
    .refine(inOrder, { message: 'endBeforeStart', path: ['to'] }),
  z.strictObject({ kind: z.literal('most'), hard, minutes }),
  z.strictObject({ kind: z.literal('pause'), hard, after: minutes, minutes }),
]);
export type KeepWire = z.infer<typeof keepWire>;

export const keepsBody = z.strictObject({
  keeps: z.array(keepWire).max(MOST_KEEPS, `tooManyKeeps:${MOST_KEEPS}`),
  /** The version that was read. */
  version: z.number().int().min(0),
});
export const keepsAnswer = z.strictObject({ keeps: z.array(keepWire), version: z.number(), zone: z.string() });

/** Wishes for one's days, set by whose they are or who arranges for them. */
export const keepRoutes = {
  readTimePreferences: {
    ...at('readTimePreferences'),
    who: 'person',
    summary: 'What a calendar’s owner wishes of their days',
    answer: keepsAnswer,
  },
  saveTimePreferences: {
    ...at('saveTimePreferences'),
    who: 'person',
    summary: 'Say what a calendar’s owner wishes of their days',
    body: keepsBody,
    answer: keepsAnswer,
  },
} as const satisfies Routes;
