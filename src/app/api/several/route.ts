import { route } from '@/server/http/route.ts';
import { changeSeveral } from '@/server/operations/meetings/index.ts';

export const POST = route('changeSeveral', ({ ctx, body }) => changeSeveral(ctx, body));
