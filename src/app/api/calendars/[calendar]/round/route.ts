import { slowRoute } from '@/server/http/route.ts';
import { findRoundBeside } from '@/server/operations/beside/beside.ts';

export const POST = slowRoute('findRound', ({ ctx, params, body }) =>
  findRoundBeside(ctx, params.calendar ?? '', body),
);
