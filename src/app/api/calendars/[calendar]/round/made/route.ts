import { route } from '@/server/http/route.ts';
import { makeRound } from '@/server/operations/meetings/index.ts';

export const POST = route('makeRound', ({ ctx, params, body }) => makeRound(ctx, params.calendar ?? '', body));
