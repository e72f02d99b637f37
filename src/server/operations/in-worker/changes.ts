import type { ChangesAnswer, ChangesBody } from '@/contract/sharing/changes.ts';
import { calendarById } from '../../repositories/calendars.ts';
import { grantsOnAt } from '../../repositories/grants.ts';
import { ok, type Result } from '../../result.ts';
import { announceAccess, type Context, collectionOf, tellPeople } from '../deciding/index.ts';
import { changeGrantsAside } from './in-worker.ts';

/** Calendars whose windows are told before others have their turn. */
const A_SLICE = 4;

/** Gives and takes access on many calendars, all or none; the open windows concerned follow, a few calendars at a time. */
export async function changeGrantsInWorker(ctx: Context, body: ChangesBody): Promise<Result<ChangesAnswer>> {
  const done = await changeGrantsAside(ctx, body);
  if (!done.ok) return done;
  const { answer, calendars, told } = done.value;
  for (let from = 0; from < calendars.length; from += A_SLICE) {
    for (const id of calendars.slice(from, from + A_SLICE)) {
      const calendar = calendarById(ctx.db, id);
      if (calendar) announceAccess(ctx, calendar, collectionOf(calendar, grantsOnAt(ctx.db, id, ctx.now - 1)));
    }
    await new Promise((others) => setImmediate(others));
  }
  tellPeople(ctx.db, told);
  return ok(answer);
}
