import { route } from '@/server/http/route.ts';
import { checkTime } from '@/server/operations/openings/index.ts';

export const POST = route('checkTime', ({ ctx, params, body }) => checkTime(ctx, params.calendar ?? '', body));
