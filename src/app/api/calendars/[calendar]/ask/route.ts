import { route } from '@/server/http/route.ts';
import { askAccess } from '@/server/operations/sharing/ask.ts';

export const POST = route('ask', ({ ctx, params, body }) => askAccess(ctx, params.calendar ?? '', body));
