import { route } from '@/server/http/route.ts';
import { listReminders } from '@/server/operations/reminders/index.ts';
import { ok } from '@/server/result.ts';

export const GET = route('listReminders', ({ ctx }) => ok(listReminders(ctx)));
