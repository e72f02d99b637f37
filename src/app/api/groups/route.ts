import { route } from '@/server/http/route.ts';
import { listGroups, makeGroup } from '@/server/operations/people/groups.ts';

export const GET = route('listGroups', ({ ctx }) => listGroups(ctx));
export const POST = route('makeGroup', ({ ctx, body }) => makeGroup(ctx, body.name));
