import { route } from '@/server/http/route.ts';
import { orderLanes } from '@/server/operations/lanes/index.ts';

export const PUT = route('orderLanes', ({ ctx, body }) => orderLanes(ctx, body.lanes));
