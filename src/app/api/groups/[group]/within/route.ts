import { route } from '@/server/http/route.ts';
import { setWithin } from '@/server/operations/people/groups.ts';

export const PUT = route('setWithin', ({ ctx, params, body }) => setWithin(ctx, params.group ?? '', body));
