import { download } from '@/server/http/download.ts';
import { route, slowRoute } from '@/server/http/route.ts';
import { bringBackAttachment, readAttachment, removeAttachment } from '@/server/operations/items/index.ts';

export const GET = slowRoute('readAttachment', async ({ ctx, params }) => {
  const file = await readAttachment(ctx, params.attachment ?? '');
  return file.ok ? download(file.value) : file;
});
export const DELETE = route('removeAttachment', ({ ctx, params }) => removeAttachment(ctx, params.attachment ?? ''));
export const POST = route('bringBackAttachment', ({ ctx, params }) =>
  bringBackAttachment(ctx, params.attachment ?? ''),
);
