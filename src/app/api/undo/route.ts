import { slowRoute } from '@/server/http/route.ts';
import { undoAny } from '@/server/operations/beside/imports.ts';

export const POST = slowRoute('undo', ({ ctx, body }) => undoAny(ctx, body.undo));
