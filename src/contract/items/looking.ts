import { z } from 'zod';
import { at, type Routes } from '../route.ts';

const lookingBody = z.strictObject({ doing: z.enum(['looks', 'types', 'gone']) });
export type LookingBody = z.infer<typeof lookingBody>;
const lookingAnswer = z.strictObject({
  others: z.array(z.strictObject({ name: z.string(), colour: z.number(), types: z.boolean() })),
});
export type LookingAnswer = z.infer<typeof lookingAnswer>;

/** Who has an item open at one time, among those who may change it. */
export const lookingRoutes = {
  sayLooking: {
    ...at('sayLooking'),
    who: 'person',
    by: 'session',
    summary: 'Say that one has an item open, and hear who else has',
    body: lookingBody,
    reads: true,
    answer: lookingAnswer,
  },
} as const satisfies Routes;
