import { eventStream } from '@/server/http/event-stream.ts';
import { route } from '@/server/http/route.ts';
import { findLink } from '@/server/operations/sharing/links.ts';

export const dynamic = 'force-dynamic';

/** A stream for whoever has a link open: that what it shows changed, and nothing else. It ends with the link. */
export const GET = route('linkLive', ({ params, request }) => {
  const find = () => findLink(params.link ?? '', request.headers);
  const found = find();
  if (!('link' in found)) return found;
  return eventStream(request, `link:${found.link.key}`, null, () => 'link' in find());
});
