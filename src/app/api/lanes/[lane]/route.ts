import { route } from '@/server/http/route.ts';
import { changeLane, dropLane } from '@/server/operations/lanes/index.ts';

export const PATCH = route('changeLane', ({ ctx, params, body }) => changeLane(ctx, params.lane ?? '', body));
export const DELETE = route('dropLane', ({ ctx, params }) => dropLane(ctx, params.lane ?? ''));
