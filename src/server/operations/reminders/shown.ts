import type { RemindersAnswer } from '@/contract/reminders.ts';
import { calendarById } from '../../repositories/calendars.ts';
import { itemById } from '../../repositories/items.ts';
import { personById } from '../../repositories/people.ts';
import { type Reminded, remindedByKey, remindedOpen, settleReminded } from '../../repositories/reminders.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, decideOn, viewFor } from '../deciding/index.ts';
import { mayBeReminded } from './wishes.ts';

const HOUR = 3_600_000;
const AGAIN = 5 * 60_000;
const MOST = 20;

/** What the viewer is being reminded of, as they see it now: what they don't see any more isn't among it. */
export function listReminders(ctx: Context): RemindersAnswer {
  const open = remindedOpen(ctx.db, ctx.viewer.id, ctx.now, ctx.now - HOUR, MOST);
  return { due: open.flatMap((one) => shownOf(ctx, one) ?? []) };
}

/** What a letter reminds somebody of, as they see it now; `null` where that is nothing, or where it is done. */
export function reminderFor(ctx: Context, key: string): RemindersAnswer['due'][number] | null {
  const one = remindedByKey(ctx.db, ctx.viewer.id, key);
  return one && shownOf(ctx, one);
}

/** Says that a reminder is done, or to come again in five minutes. */
export function settleReminder(ctx: Context, key: string, act: 'done' | 'later'): Result<{ done: true }> {
  const done = ctx.db.write(() => settleReminded(ctx.db, ctx.viewer.id, key, act === 'done' ? null : ctx.now + AGAIN));
  return done ? ok({ done: true }) : refuse('notFound');
}

function shownOf(ctx: Context, { key, itemId, start }: Reminded): RemindersAnswer['due'][number] | null {
  const item = itemById(ctx.db, itemId);
  const calendar = item && calendarById(ctx.db, item.calendarId);
  const owner = calendar && personById(ctx.db, calendar.ownerId);
  if (!item || item.removedAt !== null || item.cancelled || !owner) return null;
  const decided = decideOn(ctx, calendar);
  const occurrence = { start, end: start + (item.end - item.start) };
  const view = mayBeReminded(decided) ? viewFor(ctx, decided, item, occurrence) : null;
  if (!view || !('notes' in view)) return null;
  return {
    key,
    item: view.id,
    calendar: calendar.main ? null : calendar.key,
    title: view.title ?? null,
    place: view.place ?? null,
    link: view.link ?? null,
    start: view.start,
    end: view.end,
    allDay: view.allDay,
    owner: { handle: owner.handle, name: owner.name, own: owner.id === ctx.viewer.id },
  };
}
