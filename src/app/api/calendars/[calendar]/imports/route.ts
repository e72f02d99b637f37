import { slowRoute } from '@/server/http/route.ts';
import { previewImport } from '@/server/operations/beside/imports.ts';

export const POST = slowRoute('previewImport', ({ ctx, params, bytes, request }) =>
  previewImport(ctx, params.calendar ?? '', bytes, request.signal),
);
