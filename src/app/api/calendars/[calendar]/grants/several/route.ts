import { route } from '@/server/http/route.ts';
import { giveSeveral, takeSeveral } from '@/server/operations/sharing/give-access.ts';

export const POST = route('giveSeveral', ({ ctx, params, body }) => giveSeveral(ctx, params.calendar ?? '', body));
export const DELETE = route('takeSeveral', ({ ctx, params, body }) => takeSeveral(ctx, params.calendar ?? '', body));
