import { route } from '@/server/http/route.ts';
import { undo } from '@/server/operations/undo.ts';

export const POST = route('undo', ({ ctx, body }) => undo(ctx, body.undo));
