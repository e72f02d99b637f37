import { z } from 'zod';
import { findOpenings, makeRoom, type OpeningsPerson } from '../src/core/openings/index.ts';
import { instantText, isZone, parseInstant } from '../src/core/time/index.ts';

const MINUTE = 60_000;
const at = z
  .string()
  .refine((s) => parseInstant(s) !== null, 'not an instant')
  .transform((s) => (parseInstant(s) as number) / MINUTE);
const minutes = z.number().int().min(0);
const zone = z.string().refine(isZone, 'no zone');
const clock = z.string().regex(/^\d\d:\d\d$/);
const days = z.array(z.number().int().min(1).max(7));
const hard = { hard: z.boolean() };
const preference = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('span'), ...hard, days, from: clock, to: clock }),
  z.object({ kind: z.literal('rest'), ...hard, days, from: clock, to: clock, minutes }),
  z.object({ kind: z.literal('most'), ...hard, minutes }),
  z.object({ kind: z.literal('pause'), ...hard, after: minutes, minutes }),
]);
const item = z.looseObject({
  start: z.string(),
  end: z.string(),
  allDay: z.boolean().default(false),
  shows: z.enum(['free', 'tentative', 'busy', 'away']),
  kind: z.string().nullish(),
  place: z.string().nullish(),
});
const person = z.object({
  need: z.enum(['must', 'may']),
  known: z.boolean(),
  zone,
  hours: z
    .array(z.array(z.tuple([clock, clock])))
    .length(7)
    .nullable()
    .default(null),
  keeps: z.array(preference).default([]),
  items: z.array(item).default([]),
});

/** A case file of openings, as the page of the rule describes it. */
export const openingsSchema = z.object({
  rule: z.literal('openings'),
  name: z.string().default(''),
  now: at,
  request: z.object({
    from: at,
    until: at,
    length: z.number().int().min(1),
    grid: z.number().int().min(1),
    zone,
    notice: minutes.default(0),
    tentative: z.enum(['blocks', 'counts']).default('blocks'),
    within: z.enum(['hours', 'any']).default('hours'),
    padBefore: minutes.default(0),
    padAfter: minutes.default(0),
    place: z.string().nullish(),
    at: z.array(z.string()).default([]),
  }),
  people: z.record(z.string(), person),
  travel: z.array(z.tuple([z.string(), z.string(), minutes])).default([]),
  movable: z
    .array(
      z.object({
        id: z.string(),
        people: z.array(z.string()),
        start: at,
        length: z.number().int().min(0),
        cost: z.number().min(0),
        from: at,
        until: at,
      }),
    )
    .optional(),
  mostMoves: z.number().int().min(0).default(3),
  expect: z.object({
    starts: z.array(z.string()).optional(),
    cut: z.boolean().optional(),
    room: z.object({ cost: z.number(), moves: z.number() }).nullable().optional(),
  }),
});
type OpeningsCase = z.infer<typeof openingsSchema>;

/** What the rule answers for a case, in the shape of its `expect`. */
export function runOpenings(file: OpeningsCase): OpeningsCase['expect'] {
  const { now, request, travel, movable = [], mostMoves, expect } = file;
  const search = { ...request, now, place: request.place ?? null };
  const people = Object.entries(file.people).map(([id, p]): OpeningsPerson => ({ id, ...p }));
  const found = findOpenings(search, people, travel, movable);
  const { room } = expect.room === undefined ? { room: null } : makeRoom(search, people, travel, movable, mostMoves);
  return {
    starts: found.starts.map((s) => instantText(s * MINUTE)),
    cut: found.cut,
    room: room && { cost: room.cost, moves: room.moves.length },
  };
}

/** Expected starts as this program writes them. */
export const asWritten = (expect: OpeningsCase['expect']): OpeningsCase['expect'] => ({
  ...expect,
  ...(expect.starts ? { starts: expect.starts.map((s) => instantText(parseInstant(s) ?? 0)) } : {}),
});
