import { route } from '@/server/http/route.ts';
import { setTold } from '@/server/operations/sharing/told.ts';

export const PUT = route('setTold', ({ ctx, params, body }) => setTold(ctx, params.calendar ?? '', body));
