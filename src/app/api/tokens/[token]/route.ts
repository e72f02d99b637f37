import { route } from '@/server/http/route.ts';
import { readTokenActs, withdrawToken } from '@/server/operations/people/tokens.ts';

export const GET = route('readTokenActs', ({ ctx, params }) => readTokenActs(ctx, params.token ?? ''));

export const DELETE = route('withdrawToken', ({ ctx, params }) => withdrawToken(ctx, params.token ?? ''));
