import { route } from '@/server/http/route.ts';
import { changeSeveralBeside } from '@/server/operations/beside/beside.ts';
import { changeSeveral } from '@/server/operations/meetings/index.ts';

export const POST = route(
  'changeSeveral',
  ({ ctx, body }) => changeSeveral(ctx, body),
  ({ ctx, body }) => changeSeveralBeside(ctx, body),
);
