import { route } from '@/server/http/route.ts';
import { readItemReminder, setItemReminder } from '@/server/operations/reminders/index.ts';

export const GET = route('readItemReminder', ({ ctx, params }) => readItemReminder(ctx, params.item ?? ''));
export const PUT = route('setItemReminder', ({ ctx, params, body }) => setItemReminder(ctx, params.item ?? '', body));
