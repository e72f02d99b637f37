import { feed } from '@/server/http/feed.ts';
import { route } from '@/server/http/route.ts';
import { linkFreeBusy } from '@/server/operations/sharing/link-feeds.ts';

export const GET = route('linkFreeBusy', ({ params, query, request }) => {
  const read = linkFreeBusy(params.link ?? '', query, request.headers);
  return read.ok ? feed(read.value, 'free-busy.ifb', request) : read;
});
