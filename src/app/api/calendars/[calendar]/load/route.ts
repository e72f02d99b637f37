import { slowRoute } from '@/server/http/route.ts';
import { listLoadBeside } from '@/server/operations/beside/beside.ts';

export const GET = slowRoute('listLoad', ({ ctx, params, query }) => listLoadBeside(ctx, params.calendar ?? '', query));
