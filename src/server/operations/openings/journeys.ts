import type { z } from 'zod';
import type { journeysAnswer, journeysRead } from '@/contract/openings/openings.ts';
import { readJourneys, writeJourneys } from '@/core/formats/index.ts';
import { allJourneys, saveJourneys } from '../../repositories/journeys.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, trailOwn } from '../deciding/index.ts';

const plain = (ctx: Context) => allJourneys(ctx.db).map(([a, b, m]): [string, string, number] => [a, b, m]);

/** How long it takes between the organisation's places: for everybody inside. */
export function listJourneys(ctx: Context): Result<z.infer<typeof journeysAnswer>> {
  if (!ctx.viewer.inside) return ok({ journeys: [], mayChange: false });
  return ok({ journeys: plain(ctx), mayChange: ctx.viewer.administrator });
}

/** Reads a table of journeys, and, where no line of it is wrong and it is said so, puts it in the place of the one there. For administrators. */
export function bringInJourneys(
  ctx: Context,
  body: { text: string; apply: boolean },
): Result<z.infer<typeof journeysRead>> {
  if (!ctx.viewer.administrator) return refuse('administratorOnly');
  const read = readJourneys(body.text);
  const journeys = read.journeys.map(([a, b, m]): [string, string, number] => [a, b, m]);
  const applied = body.apply && read.wrong.length === 0;
  if (applied)
    ctx.db.write(() => {
      const before = plain(ctx);
      saveJourneys(ctx.db, journeys);
      trailOwn(ctx, 'journeys', 'journeys.changed', before, journeys);
    });
  return ok({ journeys, wrong: read.wrong.slice(0, 50), applied });
}

/** The table as text, as it is read. For administrators. */
export const takeOutJourneys = (ctx: Context): Result<string> =>
  ctx.viewer.administrator ? ok(writeJourneys(plain(ctx))) : refuse('administratorOnly');
