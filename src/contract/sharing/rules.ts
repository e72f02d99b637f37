import { z } from 'zod';
import { SCOPES, SIGHTS } from '@/core/calendar/index.ts';
import { at, done, type Routes } from '../route.ts';

/** A house rule, and a value for it. */
export const ruleChange = z.strictObject({
  rule: z.enum(['everyoneSight', 'outsideSight', 'outsideReach', 'outsideExtras', 'linkSight', 'linksBy']),
  wanted: z.string().max(20),
});
export type RuleChange = z.infer<typeof ruleChange>;

const ceilings = z.strictObject({
  everyoneSight: z.enum(SIGHTS),
  outsideSight: z.enum(SIGHTS),
  outsideReach: z.enum(SCOPES),
  outsideExtras: z.boolean(),
  linkSight: z.enum(SIGHTS),
});
export type CeilingsWire = z.infer<typeof ceilings>;
/**
 * The organisation's ceilings on main calendars; those on further ones, `null` where they are the same; what everyone inside
 * gets of a new calendar; who may make links.
 */
export const houseRulesWire = z.strictObject({
  main: ceilings,
  further: ceilings.nullable(),
  startSight: z.enum(SIGHTS),
  linksBy: z.enum(['sharers', 'administrators', 'nobody']),
  /** Of meetings: whether those outside are named before one first leaves the house, and whether each gets a joining link by itself. */
  warnOutside: z.boolean().default(true),
  meetingLinks: z.boolean().default(false),
});
export type HouseRulesWire = z.infer<typeof houseRulesWire>;
const houseRulesAnswer = z.strictObject({ rules: houseRulesWire, mayChange: z.boolean(), cut: z.number() });

/** A wish that house rules be set to exactly this. */
const wishBody = z.strictObject({
  changes: z.array(ruleChange).min(1, 'listEmpty').max(6),
  further: z.boolean(),
  note: z.string().trim().max(1000, 'tooLong:1000'),
});
export type WishBody = z.infer<typeof wishBody>;
const wishAnswerBody = z.strictObject({
  answer: z.enum(['changed', 'left']),
  note: z.string().trim().max(1000, 'tooLong:1000'),
});
export type WishAnswerBody = z.infer<typeof wishAnswerBody>;

/** House rules, and wishes for them. */
export const ruleRoutes = {
  readHouseRules: {
    ...at('readHouseRules'),
    who: 'person',
    summary: 'The organisation’s ceilings',
    answer: houseRulesAnswer,
  },
  changeHouseRules: {
    ...at('changeHouseRules'),
    who: 'person',
    summary: 'Set the organisation’s ceilings (administrators)',
    body: houseRulesWire,
    answer: done,
  },
  wishForRule: {
    ...at('wishForRule'),
    who: 'person',
    summary: 'Ask the administrators for a house rule',
    body: wishBody,
    answer: done,
  },
  answerWish: {
    ...at('answerWish'),
    who: 'person',
    summary: 'Set a rule as somebody wished, or leave it (administrators)',
    body: wishAnswerBody,
    answer: done,
  },
} as const satisfies Routes;
