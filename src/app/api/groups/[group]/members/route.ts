import { route } from '@/server/http/route.ts';
import { setMembership } from '@/server/operations/people/groups.ts';

export const PUT = route('setMembership', ({ ctx, params, body }) => setMembership(ctx, params.group ?? '', body));
