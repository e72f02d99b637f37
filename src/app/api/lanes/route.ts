import { route } from '@/server/http/route.ts';
import { keepLanes, listLanes } from '@/server/operations/lanes/index.ts';
import { ok } from '@/server/result.ts';

export const GET = route('listLanes', ({ ctx }) => ok(listLanes(ctx)));
export const POST = route('keepLanes', ({ ctx, body }) => keepLanes(ctx, body));
