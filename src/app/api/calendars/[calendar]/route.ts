import { route } from '@/server/http/route.ts';
import { bringCalendarBack, changeCalendar, removeCalendar } from '@/server/operations/people/own-calendar.ts';

export const PUT = route('changeCalendar', ({ ctx, params, body }) => changeCalendar(ctx, params.calendar ?? '', body));
export const DELETE = route('removeCalendar', ({ ctx, params }) => removeCalendar(ctx, params.calendar ?? ''));
export const POST = route('bringCalendarBack', ({ ctx, params }) => bringCalendarBack(ctx, params.calendar ?? ''));
