import { z } from 'zod';
import { DESK_KINDS, type DeskFacts, type DeskItem, type DeskPrincipal, deskOf } from '../src/core/desk/index.ts';
import { instantText, isZone, parseDate, parseInstant } from '../src/core/time/index.ts';

const at = z
  .string()
  .refine((s) => parseInstant(s) !== null, 'not an instant')
  .transform((s) => parseInstant(s) as number);
const date = z
  .string()
  .refine((s) => parseDate(s) !== null, 'not a date')
  .transform((s) => parseDate(s) as number);
const none = <T extends z.ZodType>(type: T) => type.nullish().transform((value) => value ?? null);
const list = <T extends z.ZodType>(type: T) => z.array(type).default([]);
const fact = { id: z.string(), version: z.number().int() };
const word = z.object({ ...fact, at, by: z.string().default('') });
const ANSWERS = ['needs-action', 'accepted', 'tentative', 'declined'] as const;

const attendee = z.object({
  who: z.string(),
  need: z.enum(['must', 'may']).default('must'),
  thing: z.boolean().default(false),
  answer: z.enum(ANSWERS),
  since: at,
  proposes: none(at),
  without: z.boolean().default(false),
});
const itemFields = {
  ...fact,
  uid: none(z.string()),
  shows: z.enum(['free', 'tentative', 'busy', 'away']),
  kind: z.string().default('meeting'),
  place: none(z.string()),
  link: none(z.string()),
  cancelled: z.boolean().default(false),
  calls: none(z.string()),
  answer: none(z.enum(ANSWERS)),
  answerBy: none(at),
  set: none(z.string()),
  asked: list(attendee),
};
const item = z.union([
  z.object({ ...itemFields, allDay: z.literal(false).default(false), start: at, end: at }),
  z.object({ ...itemFields, allDay: z.literal(true), start: date, end: date }),
]) satisfies z.ZodType<DeskItem>;

const facts = z.object({
  items: list(item),
  travel: list(z.tuple([z.string(), z.string(), z.number()])),
  sets: list(z.object({ ...fact, lapses: none(at) })),
  wishes: list(z.object({ ...fact, days: z.array(date) })),
  suggestions: list(word.extend({ before: none(at), after: none(at) })),
  asks: list(word),
  claims: list(word),
  letters: list(word),
  mails: list(word),
  tasks: list(
    z.object({
      ...fact,
      due: none(z.union([at.transform((instant) => ({ instant })), date.transform((day) => ({ date: day }))])),
      done: z.boolean().default(false),
    }),
  ),
  grants: list(z.object({ ...fact, given: at, ends: none(at), used: z.boolean() })),
  findings: list(z.object(fact)),
  absences: list(z.object({ ...fact, from: at, until: at, notice: z.boolean(), cover: z.boolean() })),
}) satisfies z.ZodType<DeskFacts>;

const clock = z.string().regex(/^\d\d:\d\d$/);
const principal = z.object({
  who: z.string(),
  zone: z.string().refine(isZone, 'no zone'),
  hours: none(z.array(z.array(z.tuple([clock, clock]))).length(7)),
  shifts: z.partialRecord(z.enum(DESK_KINDS), z.number().int()).default({}),
  first: list(z.string()),
  acts: list(z.string()),
  away: list(z.string()),
  facts: facts.prefault({}),
});

/** A case file of the Desk, as the page of the rule describes it. */
export const deskSchema = z.object({
  rule: z.literal('desk'),
  name: z.string().default(''),
  now: at,
  viewer: z.string(),
  principals: z.array(principal),
  said: list(
    z.object({
      key: z.string(),
      by: z.string(),
      at,
      what: z.enum(['later', 'left', 'passed']),
      until: none(at),
      versions: z.record(z.string(), z.number().int()).default({}),
      to: none(z.string()),
    }),
  ),
  expect: z.array(
    z.object({
      key: z.string(),
      kind: z.enum(DESK_KINDS),
      due: none(at).transform((due) => (due === null ? null : instantText(due))),
      part: z.enum(['now', 'soon', 'time']),
      score: z.number(),
    }),
  ),
});
export type DeskCase = z.infer<typeof deskSchema>;

/** The principals of a case: each one's address is `WHO@house.example`. */
export const principalsOf = (raw: Pick<DeskCase, 'principals'>): DeskPrincipal[] =>
  raw.principals.map((one) => ({ ...one, address: `${one.who}@house.example` }));

/** What the rule answers for a case, in the shape of its `expect`. */
export function runDesk(raw: DeskCase): DeskCase['expect'] {
  return deskOf(raw.viewer, principalsOf(raw), raw.said, raw.now).rows.map(({ key, kind, due, part, score }) => ({
    key,
    kind,
    due: due === null ? null : instantText(due),
    part,
    score,
  }));
}
