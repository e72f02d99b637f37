import { route } from '@/server/http/route.ts';
import { makeWayIn } from '@/server/operations/leaving.ts';

export const POST = route('makeWayIn', ({ ctx, params }) => makeWayIn(ctx, params.person ?? ''));
