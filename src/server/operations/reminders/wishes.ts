import type { ItemReminder, WishesAnswer } from '@/contract/reminders.ts';
import { mayRun } from '@/core/access/index.ts';
import { isTaken } from '@/core/calendar/index.ts';
import type { Connection } from '../../db/index.ts';
import { calendarById, calendarsOf } from '../../repositories/calendars.ts';
import { calendarsNaming } from '../../repositories/grants.ts';
import { personById } from '../../repositories/people.ts';
import { countReminders, type Reminder, reminderOf, saveReminder } from '../../repositories/reminders.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  type Context,
  type Decided,
  decideOn,
  type FoundItem,
  findCalendar,
  findItem,
  isRefusal,
} from '../deciding/index.ts';

/** Items of one calendar somebody may have a wish of their own for. */
const MOST_OWN = 5000;
const DONE = { done: true } as const;

/** Who is reminded of what happens in a calendar: its owner, and whoever speaks for them or arranges everything there. */
export const mayBeReminded = ({ decision }: Decided): boolean => mayRun(decision).run;

/** Every calendar the viewer may be reminded of, with their own wish: their own first. */
export function listReminderWishes(ctx: Context): WishesAnswer {
  const me = ctx.viewer;
  const ids = [...new Set([...calendarsOf(ctx.db, me.id).map((c) => c.id), ...calendarsNaming(ctx.db, me.id)])];
  const calendars = ids.flatMap((id): WishesAnswer['calendars'] => {
    const calendar = calendarById(ctx.db, id);
    const owner = calendar && personById(ctx.db, calendar.ownerId);
    if (!calendar || !owner || !mayBeReminded(decideOn(ctx, calendar))) return [];
    const wish = reminderOf(ctx.db, id, me.id, null);
    return [
      {
        calendar: calendar.key,
        owner: owner.name,
        name: calendar.main ? null : calendar.name,
        own: owner.id === me.id,
        minutes: wish?.minutes ?? null,
        byMail: wish?.byMail ?? false,
      },
    ];
  });
  return { calendars };
}

/** Says how long before what takes time in a calendar the viewer is reminded; they alone are. */
export function setReminderWish(
  ctx: Context,
  key: string,
  wish: { minutes: number | null; byMail: boolean },
): Result<typeof DONE> {
  return ctx.db.write(() => {
    const decided = findCalendar(ctx, key);
    if (isRefusal(decided)) return decided;
    if (!mayBeReminded(decided)) return refuse('notFound');
    const { minutes, byMail } = wish;
    const own = { calendarId: decided.calendar.id, personId: ctx.viewer.id, itemId: null };
    saveReminder(ctx.db, { ...own, minutes: minutes ?? undefined, byMail });
    return ok(DONE);
  });
}

/** How long before an item the viewer is reminded of it. */
export function readItemReminder(ctx: Context, id: string): Result<ItemReminder> {
  const found = findRemindable(ctx, id);
  if (isRefusal(found)) return found;
  const { calendar } = found.decided;
  const own = wishFor(ctx.db, calendar.id, ctx.viewer.id, found.item);
  const usual = reminderOf(ctx.db, calendar.id, ctx.viewer.id, null);
  const usually = found.item.allDay || !isTaken(found.item.shows) ? null : (usual?.minutes ?? null);
  const { minutes, byMail } = own ?? { minutes: usually, byMail: usual?.byMail ?? false };
  return ok({ usual: own === null, minutes, byMail, usually });
}

/** Says so of one item, and of every occurrence of a series that has no wish of its own. */
export function setItemReminder(
  ctx: Context,
  id: string,
  body: { usual: true } | { minutes: number | null; byMail: boolean },
): Result<typeof DONE> {
  return ctx.db.write(() => {
    const found = findRemindable(ctx, id);
    if (isRefusal(found)) return found;
    const own = { calendarId: found.decided.calendar.id, personId: ctx.viewer.id, itemId: found.item.id };
    if (countReminders(ctx.db, own.calendarId, own.personId) >= MOST_OWN)
      return refuse('calendarFull', { facts: { most: MOST_OWN } });
    if ('usual' in body) saveReminder(ctx.db, { ...own, minutes: undefined, byMail: false });
    else saveReminder(ctx.db, { ...own, ...body });
    return ok(DONE);
  });
}

function findRemindable(ctx: Context, id: string): FoundItem | Refusal {
  const found = findItem(ctx, id);
  return isRefusal(found) || mayBeReminded(found.decided) ? found : refuse('notFound');
}

/** Somebody's own wish for an item: its own, or that of the series it stands in. */
function wishFor(
  db: Connection,
  calendarId: number,
  personId: number,
  item: { readonly id: number; readonly seriesId: number | null },
): Reminder | null {
  const own = reminderOf(db, calendarId, personId, item.id);
  return own ?? (item.seriesId === null ? null : reminderOf(db, calendarId, personId, item.seriesId));
}
