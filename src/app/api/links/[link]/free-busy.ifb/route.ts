import { feed } from '@/server/http/feed.ts';
import { route } from '@/server/http/route.ts';
import { readLinkBeside } from '@/server/operations/beside/beside.ts';

export const GET = route('linkFreeBusy', async ({ params, query, request }) => {
  const read = await readLinkBeside('freeBusy', params.link ?? '', request.headers, query);
  return read.ok ? feed(read.value, 'free-busy.ifb', request) : read;
});
