import { z } from 'zod';
import { FIRST_COLLECTIONS } from '@/core/collection/index.ts';
import { at, type Routes } from './route.ts';

const MOST_TEXT = 4000;
const text = z.string().trim().max(MOST_TEXT, `tooLong:${MOST_TEXT}`);
const day = z.iso.date('date');
const furtherKinds = z.enum(FIRST_COLLECTIONS).exclude(['calendar']);

/** One absence: days on the owner's clock, the last one included. What only those who may set it read is `null` for everybody else. */
const absence = z.strictObject({
  key: z.string(),
  from: z.string(),
  until: z.string(),
  /** It has begun. */
  now: z.boolean(),
  inside: z.string(),
  outside: z.string().nullable(),
  cover: z.strictObject({ handle: z.string(), name: z.string() }).nullable(),
  /** Whether who covers may act for all of it, by the access they have been given. */
  covered: z.boolean(),
  /** What else of the owner's who covers may be given with it, and whether they have it for all of these days; for whoever gives access there. */
  further: z.array(z.strictObject({ what: furtherKinds, covered: z.boolean() })),
  declines: z.boolean().nullable(),
  setBy: z.string(),
  /** How many senders have been answered. */
  replies: z.number().nullable(),
  version: z.number(),
});
export type AbsenceWire = z.infer<typeof absence>;

const absences = z.strictObject({
  owner: z.strictObject({ handle: z.string(), name: z.string(), zone: z.string() }),
  absences: z.array(absence),
  /** Whether one may set them, and give who covers the access for it. */
  may: z.strictObject({ set: z.boolean(), cover: z.boolean() }),
});
export type AbsencesAnswer = z.infer<typeof absences>;

const fields = {
  from: day,
  until: day,
  inside: text,
  outside: text,
  /** By handle. */
  cover: z.string().max(64).nullable(),
  declines: z.boolean(),
};
const newAbsence = z.strictObject(fields);
/** Which of the others that the owner began with are given too, each by itself; the calendar is where it isn't yet. */
const coverBody = z.strictObject({
  further: z.array(furtherKinds).max(FIRST_COLLECTIONS.length).default([]),
});
export type CoverBody = z.infer<typeof coverBody>;
export type NewAbsence = z.infer<typeof newAbsence>;

/** When somebody is away, and what is said of it. */
export const absenceRoutes = {
  listAbsences: {
    ...at('listAbsences'),
    who: 'person',
    summary: 'When somebody is away, for whoever sees when they are taken; the notice itself for those who set it',
    answer: absences,
  },
  addAbsence: {
    ...at('addAbsence'),
    who: 'person',
    summary: 'Say that somebody is away: days, what their mail is answered with, who covers',
    body: newAbsence,
    answer: absences,
  },
  changeAbsence: {
    ...at('changeAbsence'),
    who: 'person',
    summary: 'Change an absence; refused where somebody else changed it since it was read',
    body: newAbsence.extend({ version: z.number().int() }),
    answer: absences,
  },
  removeAbsence: {
    ...at('removeAbsence'),
    who: 'person',
    summary: 'Take an absence away: nothing is answered by itself from then on',
    answer: absences,
  },
  giveCover: {
    ...at('giveCover'),
    who: 'person',
    summary: 'Give whoever covers an absence the access for it, for its days, and what else of the owner’s is named',
    body: coverBody,
    answer: absences,
  },
} as const satisfies Routes;
