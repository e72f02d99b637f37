import { route } from '@/server/http/route.ts';
import { previewImport } from '@/server/operations/import-file.ts';

export const POST = route('previewImport', ({ ctx, params, request }) =>
  previewImport(ctx, params.calendar ?? '', request.body),
);
