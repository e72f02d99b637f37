import { slowRoute } from '@/server/http/route.ts';
import { leave } from '@/server/operations/leaving.ts';

export const POST = slowRoute('leave', ({ ctx, params, body }) => leave(ctx, params.person ?? '', body));
