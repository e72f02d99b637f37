import { route } from '@/server/http/route.ts';
import { whoCanCome } from '@/server/operations/meetings/index.ts';

export const POST = route('whoCanCome', ({ ctx, params, body }) => whoCanCome(ctx, params.calendar ?? '', body));
