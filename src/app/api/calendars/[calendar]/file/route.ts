import { route } from '@/server/http/route.ts';
import { exportFile } from '@/server/operations/import-file.ts';

export const GET = route('exportFile', ({ ctx, params }) => {
  const result = exportFile(ctx, params.calendar ?? '');
  if (!result.ok) return result;
  return new Response(result.value.text, {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': `attachment; filename="${result.value.name}"`,
      'cache-control': 'no-store',
    },
  });
});
