import { z } from 'zod';
import { at, done, type Routes } from '../route.ts';

/** The most tokens of one person. */
export const MOST_TOKENS = 30;

const token = z.strictObject({
  key: z.string(),
  name: z.string(),
  reads: z.boolean(),
  /** The one calendar it sees; `null` for all that its maker does. */
  calendar: z.strictObject({ key: z.string(), name: z.string() }).nullable(),
  until: z.string().nullable(),
  ended: z.boolean(),
  made: z.string(),
  used: z.string().nullable(),
  withdrawn: z.string().nullable(),
});
export type TokenWire = z.infer<typeof token>;

const tokenBody = z.strictObject({
  name: z.string().trim().min(1, 'nameMissing').max(80, 'tooLong:80'),
  reads: z.boolean(),
  calendar: z.string().max(64).nullable(),
  /** Its last day, on one's own clock. */
  until: z.iso.date('date').nullable(),
});
export type TokenBody = z.infer<typeof tokenBody>;

/** What a token wrote: by the name of the route, or what a calendar program did, and in which calendar, where one sees that still. */
const tokenActs = z.strictObject({
  acts: z.array(z.strictObject({ at: z.string(), act: z.string(), calendar: z.string().nullable() })),
  cut: z.boolean(),
});
export type TokenActs = z.infer<typeof tokenActs>;

/** What programs of one's own come in by. */
export const tokenRoutes = {
  listTokens: {
    ...at('listTokens'),
    who: 'person',
    by: 'session',
    summary: 'The tokens by which programs come in as oneself',
    answer: z.strictObject({ tokens: z.array(token) }),
  },
  makeToken: {
    ...at('makeToken'),
    who: 'person',
    by: 'session',
    summary: 'Make a token; its secret is answered this once',
    body: tokenBody,
    answer: z.strictObject({ secret: z.string() }),
  },
  readTokenActs: {
    ...at('readTokenActs'),
    who: 'person',
    by: 'session',
    summary: 'What was written by one of one’s own tokens, the latest first',
    answer: tokenActs,
  },
  withdrawToken: {
    ...at('withdrawToken'),
    who: 'person',
    by: 'session',
    summary: 'Withdraw a token: whatever uses it is refused from then on',
    answer: done,
  },
} as const satisfies Routes;
