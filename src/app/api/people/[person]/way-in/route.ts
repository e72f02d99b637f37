import { slowRoute } from '@/server/http/route.ts';
import { makeWayIn } from '@/server/operations/leaving.ts';

export const POST = slowRoute('makeWayIn', ({ ctx, params }) => makeWayIn(ctx, params.person ?? ''));
