import { z } from 'zod';
import { MOST_KEEPS } from '../mosts.ts';
import { at, type Routes } from '../route.ts';

const clock = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$|^24:00$/, 'time');
const days = z.array(z.number().int().min(1).max(7)).min(1, 'noDays').max(7);
const minutes = z.number().int().min(5).max(1440);
const hard = z.boolean();
const range = { days, from: clock, to: clock };
const inOrder = (span: { from: string; to: string }) => span.from < span.to;

/** A standing wish of a person for their days, on their own clock; weekdays from 1, Monday. Hard, or counting against a time only. */
export const timePreferenceWire = z.union([
  z
    .strictObject({ kind: z.literal('span'), hard, ...range })
    .refine(inOrder, { message: 'endBeforeStart', path: ['to'] }),
  z
    .strictObject({ kind: z.literal('rest'), hard, ...range, minutes })
    .refine(inOrder, { message: 'endBeforeStart', path: ['to'] }),
  z.strictObject({ kind: z.literal('most'), hard, minutes }),
  z.strictObject({ kind: z.literal('pause'), hard, after: minutes, minutes }),
]);
export type TimePreferenceWire = z.infer<typeof timePreferenceWire>;

export const timePreferencesBody = z.strictObject({
  keeps: z.array(timePreferenceWire).max(MOST_KEEPS, `tooManyKeeps:${MOST_KEEPS}`),
  /** The version that was read. */
  version: z.number().int().min(0),
});
export const timePreferencesAnswer = z.strictObject({
  keeps: z.array(timePreferenceWire),
  version: z.number(),
  zone: z.string(),
});

/** Wishes for one's days, set by whose they are or who arranges for them. */
export const timePreferenceRoutes = {
  readTimePreferences: {
    ...at('readTimePreferences'),
    who: 'person',
    summary: 'What a calendar’s owner wishes of their days',
    answer: timePreferencesAnswer,
  },
  saveTimePreferences: {
    ...at('saveTimePreferences'),
    who: 'person',
    summary: 'Say what a calendar’s owner wishes of their days',
    body: timePreferencesBody,
    answer: timePreferencesAnswer,
  },
} as const satisfies Routes;
