import { route } from '@/server/http/route.ts';
import { addCalendar } from '@/server/operations/people.ts';

export const POST = route('addCalendar', ({ ctx, body }) => addCalendar(ctx, body));
