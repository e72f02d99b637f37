import { route } from '@/server/http/route.ts';
import { listLoad } from '@/server/operations/list-items.ts';

export const GET = route('listLoad', ({ ctx, params, query }) => listLoad(ctx, params.calendar ?? '', query));
