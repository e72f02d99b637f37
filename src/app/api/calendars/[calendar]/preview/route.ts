import { slowRoute } from '@/server/http/route.ts';
import { previewAccessBeside } from '@/server/operations/beside/beside.ts';

export const POST = slowRoute('previewAccess', ({ ctx, params, body }) =>
  previewAccessBeside(ctx, params.calendar ?? '', body),
);
