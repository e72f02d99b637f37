import { slowRoute } from '@/server/http/route.ts';
import { suggestLevelBeside } from '@/server/operations/beside/beside.ts';

export const POST = slowRoute('suggestLevel', ({ ctx, params, body }) =>
  suggestLevelBeside(ctx, params.calendar ?? '', body),
);
