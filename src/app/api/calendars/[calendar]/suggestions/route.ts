import { route } from '@/server/http/route.ts';
import { putForward } from '@/server/operations/suggestions/suggestions.ts';

export const POST = route('putForward', ({ ctx, params, body }) => putForward(ctx, params.calendar ?? '', body));
