import { route } from '@/server/http/route.ts';
import { settleReminder } from '@/server/operations/reminders/index.ts';

export const POST = route('settleReminder', ({ ctx, params, body }) =>
  settleReminder(ctx, params.reminder ?? '', body.act),
);
