import { route } from '@/server/http/route.ts';
import { whoCanComeBeside } from '@/server/operations/beside/beside.ts';

export const POST = route('whoCanCome', ({ ctx, params, body }) => whoCanComeBeside(ctx, params.calendar ?? '', body));
