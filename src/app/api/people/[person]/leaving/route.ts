import { route } from '@/server/http/route.ts';
import { leave } from '@/server/operations/leaving.ts';

export const POST = route('leave', ({ ctx, params, body }) => leave(ctx, params.person ?? '', body));
