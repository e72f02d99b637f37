import { route } from '@/server/http/route.ts';
import { beginCalendar } from '@/server/operations/people/people.ts';

export const POST = route('beginCalendar', ({ ctx, body }) => beginCalendar(ctx, body));
