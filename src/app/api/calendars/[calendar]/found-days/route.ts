import { slowRoute } from '@/server/http/route.ts';
import { findDaysBeside } from '@/server/operations/beside/beside.ts';

export const GET = slowRoute('findDays', ({ ctx, params, query }) => findDaysBeside(ctx, params.calendar ?? '', query));
