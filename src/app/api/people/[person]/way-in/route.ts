import { slowRoute } from '@/server/http/route.ts';
import { makeWayIn } from '@/server/operations/people/leaving.ts';

export const POST = slowRoute('makeWayIn', ({ ctx, params }) => makeWayIn(ctx, params.person ?? ''));
