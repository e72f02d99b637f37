import { slowRoute } from '@/server/http/route.ts';
import { listSightlinesBeside } from '@/server/operations/beside/beside.ts';

export const GET = slowRoute('listSightlines', ({ ctx, params }) => listSightlinesBeside(ctx, params.calendar ?? ''));
