import { setOwnerTold } from '../../repositories/calendars.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, Directory, findSharedCalendar, isRefusal, trailOn } from '../deciding/index.ts';
import { listSightlines } from './sightlines.ts';

/**
 * Sets whether the owner of a main calendar is told of the messages of their meetings, or those with copies alone. Somebody has to be:
 * without anybody who gets copies the owner is. What is told is no right: whoever may read the messages finds them all the same.
 */
export function setTold(ctx: Context, key: string, body: { owner: boolean }): Result<{ done: true }> {
  const shared = findSharedCalendar(ctx, key);
  if (isRefusal(shared)) return shared;
  const { calendar } = shared;
  const listed = listSightlines(ctx, key);
  const told = listed.ok ? listed.value.told : null;
  if (!told) return refuse('notFound');
  if (!body.owner && told.others.length === 0)
    return refuse('nobodyTold', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
  ctx.db.write(() => {
    setOwnerTold(ctx.db, calendar.id, body.owner);
    trailOn(ctx, calendar, calendar.key, 'told.changed', { owner: calendar.ownerTold }, body);
  });
  return ok({ done: true });
}
