import { route } from '@/server/http/route.ts';
import { listTokens, makeToken } from '@/server/operations/people/tokens.ts';

export const GET = route('listTokens', ({ ctx }) => listTokens(ctx));
export const POST = route('makeToken', ({ ctx, body }) => makeToken(ctx, body));
