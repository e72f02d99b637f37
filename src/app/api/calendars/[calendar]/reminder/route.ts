import { route } from '@/server/http/route.ts';
import { setReminderWish } from '@/server/operations/reminders/index.ts';

export const PUT = route('setReminderWish', ({ ctx, params, body }) =>
  setReminderWish(ctx, params.calendar ?? '', body),
);
