import { route, slowRoute } from '@/server/http/route.ts';
import { bringInDirectory, directoryFile } from '@/server/operations/people/directory-file.ts';

export const GET = route('readDirectoryFile', ({ ctx }) => {
  const file = directoryFile(ctx);
  if (!file.ok) return file;
  return new Response(file.value, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="directory.csv"',
      'cache-control': 'no-store',
    },
  });
});
export const POST = slowRoute('bringInDirectory', ({ ctx, body }) => bringInDirectory(ctx, body));
