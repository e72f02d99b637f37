import { slowRoute } from '@/server/http/route.ts';
import { findTimesBeside } from '@/server/operations/beside/beside.ts';

export const POST = slowRoute('findTimes', ({ ctx, params, body }) =>
  findTimesBeside(ctx, params.calendar ?? '', body),
);
