import { route } from '@/server/http/route.ts';
import { withdrawToken } from '@/server/operations/people/tokens.ts';

export const DELETE = route('withdrawToken', ({ ctx, params }) => withdrawToken(ctx, params.token ?? ''));
