import { calendarById } from '../../repositories/calendars.ts';
import { setSuspended } from '../../repositories/collections.ts';
import { grantsOn } from '../../repositories/grants.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  announceAccess,
  type Context,
  collectionOf,
  Directory,
  findCalendar,
  isRefusal,
  trailOn,
} from '../deciding/index.ts';

/** Suspends all sharing of a calendar, or resumes it with every grant as it was. The owner's alone. */
export function suspendSharing(ctx: Context, key: string, suspended: boolean): Result<{ done: true }> {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar, decision } = decided;
  if (!decision.owner) return refuse('ownerOnly', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
  if (calendar.suspended === suspended) return ok({ done: true });
  const before = collectionOf(calendar, grantsOn(ctx.db, calendar.id));
  ctx.db.write(() => {
    setSuspended(ctx.db, calendar.id, suspended, ctx.now, ctx.viewer.id);
    const verb = suspended ? 'sharing.suspended' : 'sharing.resumed';
    trailOn(ctx, calendar, calendar.key, verb, { suspended: !suspended }, { suspended });
  });
  announceAccess(ctx, calendarById(ctx.db, calendar.id) ?? calendar, before);
  return ok({ done: true });
}
