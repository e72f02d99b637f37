import { route } from '@/server/http/route.ts';
import { listAsks } from '@/server/operations/sharing/asks.ts';
import { makeAsk } from '@/server/operations/sharing/make-ask.ts';

export const GET = route('listAsks', ({ ctx }) => listAsks(ctx));
export const POST = route('makeAsk', ({ ctx, body }) => makeAsk(ctx, body));
