import { slowRoute } from '@/server/http/route.ts';
import { exportFileBeside } from '@/server/operations/beside/beside.ts';

export const GET = slowRoute('exportFile', async ({ ctx, params }) => {
  const result = await exportFileBeside(ctx, params.calendar ?? '');
  if (!result.ok) return result;
  return new Response(result.value.text, {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': `attachment; filename="${result.value.name}"`,
      'cache-control': 'no-store',
    },
  });
});
