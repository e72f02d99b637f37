import { feed } from '@/server/http/feed.ts';
import { route } from '@/server/http/route.ts';
import { readLinkBeside } from '@/server/operations/beside/beside.ts';

export const GET = route('linkFeed', async ({ params, request }) => {
  const read = await readLinkBeside('feed', params.link ?? '', request.headers, null);
  return read.ok ? feed(read.value, 'calendar.ics', request) : read;
});
