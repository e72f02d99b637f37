import { slowRoute } from '@/server/http/route.ts';
import { findSeriesTimesBeside } from '@/server/operations/beside/beside.ts';

export const POST = slowRoute('findSeriesTimes', ({ ctx, params, body }) =>
  findSeriesTimesBeside(ctx, params.calendar ?? '', body),
);
