import { slowRoute } from '@/server/http/route.ts';
import { checkTimeBeside } from '@/server/operations/beside/beside.ts';

export const POST = slowRoute('checkTime', ({ ctx, params, body }) =>
  checkTimeBeside(ctx, params.calendar ?? '', body),
);
