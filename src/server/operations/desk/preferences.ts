import type { z } from 'zod';
import type { deskRoutes } from '@/contract/desk.ts';
import { deskPreferenceOf, putDeskPreference } from '../../repositories/desk.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type ActedFor, type Context, tellPeople, trailOn } from '../deciding/index.ts';
import { deskPrincipals, whoActsFor } from './desk.ts';

type Answer = z.infer<(typeof deskRoutes)['readDeskPreferences']['answer']>;
type Body = z.infer<(typeof deskRoutes)['saveDeskPreferences']['body']>;

/** Whose they are, for themselves and for whoever acts for them. */
const findActedFor = (ctx: Context, handle: string): ActedFor | undefined =>
  deskPrincipals(ctx).find(({ person }) => person.handle === handle);

/** How much each kind of row counts for somebody, and who goes first for them. */
export function readDeskPreferences(ctx: Context, handle: string): Result<Answer> {
  const one = findActedFor(ctx, handle);
  return one ? ok(deskPreferenceOf(ctx.db, one.person.id) as Answer) : refuse('notFound');
}

/** Says both anew, where they are as they were read. */
export function saveDeskPreferences(ctx: Context, handle: string, body: Body): Result<{ done: true }> {
  return ctx.db.write(() => {
    const one = findActedFor(ctx, handle);
    if (!one) return refuse('notFound');
    const before = deskPreferenceOf(ctx.db, one.person.id);
    if (before.version !== body.version) return refuse('changedMeanwhile', { data: before });
    const shifts = Object.fromEntries(Object.entries(body.shifts).filter(([, shift]) => shift !== 0));
    const after = { shifts, first: [...new Set(body.first)], version: body.version + 1 };
    putDeskPreference(ctx.db, one.person.id, after, ctx.viewer.id, ctx.now);
    trailOn(ctx, one.decided.calendar, one.person.key, 'desk.weights', before, after);
    tellPeople(ctx.db, [one.person.id, ...whoActsFor(ctx, one).map(({ id }) => id)]);
    return ok({ done: true as const });
  });
}
