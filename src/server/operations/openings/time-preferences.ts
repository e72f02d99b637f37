import type { z } from 'zod';
import type { timePreferencesAnswer, timePreferencesBody } from '@/contract/openings/time-preferences.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { putTimePreferences, timePreferencesOf } from '../../repositories/time-preferences.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { type Context, Directory, findCalendar, isRefusal } from '../deciding/index.ts';

type Answer = z.infer<typeof timePreferencesAnswer>;

/** Whose wishes they are: for the owner of a main calendar, and for who arranges everything in it. */
function findOwner(ctx: Context, key: string): Person | Refusal {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar, decision } = decided;
  const owner = personById(ctx.db, calendar.ownerId);
  if (!owner || !calendar.main) return refuse('notFound');
  if (!decision.owner && decision.rights.change !== 'all')
    return refuse('mayNotChange', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
  return owner;
}

const answer = (ctx: Context, owner: Person): Answer => {
  const { keeps: preferences, version } = timePreferencesOf(ctx.db, owner.id);
  return { keeps: preferences as Answer['keeps'], version, zone: owner.zone };
};

export function readTimePreferences(ctx: Context, key: string): Result<Answer> {
  const owner = findOwner(ctx, key);
  return isRefusal(owner) ? owner : ok(answer(ctx, owner));
}

/** Says all of somebody's wishes anew, where they are as they were read. */
export function saveTimePreferences(
  ctx: Context,
  key: string,
  body: z.infer<typeof timePreferencesBody>,
): Result<Answer> {
  return ctx.db.write(() => {
    const owner = findOwner(ctx, key);
    if (isRefusal(owner)) return owner;
    const now = answer(ctx, owner);
    if (now.version !== body.version) return refuse('changedMeanwhile', { data: now });
    putTimePreferences(ctx.db, owner.id, { keeps: body.keeps, version: body.version + 1 }, ctx.viewer.id, ctx.now);
    return ok(answer(ctx, owner));
  });
}
