import { slowRoute } from '@/server/http/route.ts';
import { readFindingsBeside } from '@/server/operations/beside/beside.ts';

export const GET = slowRoute('readFindings', ({ ctx, params }) => readFindingsBeside(ctx, params.calendar ?? ''));
