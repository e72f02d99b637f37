import { slowRoute } from '@/server/http/route.ts';
import { leave } from '@/server/operations/people/leaving.ts';

export const POST = slowRoute('leave', ({ ctx, params, body }) => leave(ctx, params.person ?? '', body));
