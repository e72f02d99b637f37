import { feed } from '@/server/http/feed.ts';
import { route } from '@/server/http/route.ts';
import { linkFeed } from '@/server/operations/sharing/link-feeds.ts';

export const GET = route('linkFeed', ({ params, request }) => {
  const read = linkFeed(params.link ?? '', request.headers);
  return read.ok ? feed(read.value, 'calendar.ics', request) : read;
});
