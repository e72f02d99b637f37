import { slowRoute } from '@/server/http/route.ts';
import { readTimesDayBeside } from '@/server/operations/beside/beside.ts';

export const POST = slowRoute('readTimesDay', ({ ctx, params, body }) =>
  readTimesDayBeside(ctx, params.calendar ?? '', body),
);
