import type { RouteName } from '@/contract/routes.ts';
import {
  listReminders,
  listReminderWishes,
  readItemReminder,
  setItemReminder,
  setReminderWish,
  settleReminder,
} from '../../operations/reminders/index.ts';
import { ok } from '../../result.ts';
import type { HandlersOf } from '../handler.ts';

export const remindersHandlers = {
  listReminders: ({ ctx }) => ok(listReminders(ctx)),
  settleReminder: ({ ctx, params, body }) => settleReminder(ctx, params.reminder, body.act),
  listReminderWishes: ({ ctx }) => ok(listReminderWishes(ctx)),
  setReminderWish: ({ ctx, params, body }) => setReminderWish(ctx, params.calendar, body),
  readItemReminder: ({ ctx, params }) => readItemReminder(ctx, params.item),
  setItemReminder: ({ ctx, params, body }) => setItemReminder(ctx, params.item, body),
} satisfies Partial<HandlersOf<RouteName>>;
