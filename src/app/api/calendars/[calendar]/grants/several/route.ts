import { route } from '@/server/http/route.ts';
import { giveSeveral } from '@/server/operations/give-access.ts';

export const POST = route('giveSeveral', ({ ctx, params, body }) => giveSeveral(ctx, params.calendar ?? '', body));
