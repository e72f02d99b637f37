import { route } from '@/server/http/route.ts';
import { sayIt, takeBack } from '@/server/operations/meetings/index.ts';

export const POST = route('sayIt', ({ ctx, params }) => sayIt(ctx, params.sending ?? ''));
export const DELETE = route('takeBack', ({ ctx, params }) => takeBack(ctx, params.sending ?? ''));
