import { route } from '@/server/http/route.ts';
import { listReminderWishes } from '@/server/operations/reminders/index.ts';
import { ok } from '@/server/result.ts';

export const GET = route('listReminderWishes', ({ ctx }) => ok(listReminderWishes(ctx)));
