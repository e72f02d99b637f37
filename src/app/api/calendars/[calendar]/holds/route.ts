import { route } from '@/server/http/route.ts';
import { holdTimes } from '@/server/operations/meetings/index.ts';

export const POST = route('holdTimes', ({ ctx, params, body }) => holdTimes(ctx, params.calendar ?? '', body));
