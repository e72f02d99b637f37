import { z } from 'zod';
import { itemFields, LIMITS } from '@/core/calendar/index.ts';
import { people, writtenAnswer } from '../items/items.ts';
import { severalAnswer } from '../items/several.ts';
import { MOST_HELD } from '../mosts.ts';
import { at, type Routes } from '../route.ts';

const instant = z.iso.datetime('start');

/** Times that are held for one meeting until one of them is fixed, and who will be asked to it then. They free themselves at an instant. */
export const holdsBody = z.strictObject({
  title: itemFields.title,
  place: itemFields.place.default(null),
  people: people.default([]),
  length: z.number().int().min(5).max(1440),
  starts: z.array(instant).min(1, 'noTimes').max(MOST_HELD, `tooManyHeld:${MOST_HELD}`),
  zone: z.string().max(64, 'zone'),
  lapses: instant,
});

/** The meetings of a round, each at its time: held to be fixed one by one, or called at once. */
export const makeRoundBody = z.strictObject({
  as: z.enum(['holds', 'sent']),
  meetings: z
    .array(
      z.strictObject({
        title: itemFields.title,
        people: people.default([]),
        length: z.number().int().min(5).max(1440),
        start: instant,
      }),
    )
    .min(1)
    .max(8, 'listTooLong:8'),
  place: itemFields.place.default(null),
  zone: z.string().max(64, 'zone'),
  /** When those that are held free themselves. */
  lapses: instant,
});

/** The set of times a hold is one of. */
const holdsAnswer = z.strictObject({
  letter: z.string(),
  lapses: z.string().nullable(),
  times: z.array(
    z.strictObject({ item: z.string(), version: z.number(), start: z.string(), end: z.string(), self: z.boolean() }),
  ),
  /** Who is asked once one is fixed. */
  people: z.array(z.strictObject({ address: z.string(), name: z.string().nullable() })),
  /** Where the times are offered to somebody without an account, and how that is worded. */
  offer: z.strictObject({ address: z.string().nullable(), words: z.string() }).nullable(),
});
export type HoldsAnswer = z.infer<typeof holdsAnswer>;

/** What whoever holds an offer's address sees: how its sender worded it, how long it takes, and the times that are left. */
const offerAnswer = z.strictObject({
  words: z.string(),
  minutes: z.number(),
  times: z.array(z.strictObject({ start: z.string(), end: z.string() })),
});
export type OfferAnswer = z.infer<typeof offerAnswer>;
export const offerChoice = z.strictObject({
  start: instant,
  name: z.string().trim().min(1, 'nameMissing').max(LIMITS.name, `tooLong:${LIMITS.name}`),
  address: z.string().trim().toLowerCase().max(LIMITS.address).pipe(z.email('address')),
});

/** Times held for a meeting, fixed and freed, and offered to somebody outside. */
export const holdRoutes = {
  makeOffer: {
    ...at('makeOffer'),
    who: 'person',
    by: 'session',
    summary: 'Offer held times behind a secret address',
    body: z.strictObject({ words: itemFields.title }),
    answer: holdsAnswer,
  },
  withdrawOffer: {
    ...at('withdrawOffer'),
    who: 'person',
    summary: 'Withdraw the address held times are offered at',
    answer: holdsAnswer,
  },
  readOffer: {
    ...at('readOffer'),
    who: 'open',
    summary: 'The times that are offered at an address',
    answer: offerAnswer,
  },
  chooseOffer: {
    ...at('chooseOffer'),
    who: 'open',
    summary: 'Choose one of the times that are offered at an address',
    body: offerChoice,
    answer: z.strictObject({ start: z.string(), end: z.string(), words: z.string() }),
  },
  holdTimes: {
    ...at('holdTimes'),
    who: 'person',
    summary: 'Hold several times for one meeting, in one act',
    body: holdsBody,
    answer: severalAnswer,
  },
  makeRound: {
    ...at('makeRound'),
    who: 'person',
    summary: 'Hold or call the meetings of a round, in one act',
    body: makeRoundBody,
    answer: severalAnswer,
  },
  readHolds: {
    ...at('readHolds'),
    who: 'person',
    summary: 'The set of times a hold is one of',
    answer: holdsAnswer,
  },
  fixHold: {
    ...at('fixHold'),
    who: 'person',
    summary: 'Make the meeting at one of the held times, ask whom it was held for, and free the others',
    body: z.strictObject({ version: z.number().int() }),
    answer: severalAnswer.extend({ fixed: writtenAnswer }),
  },
} as const satisfies Routes;
