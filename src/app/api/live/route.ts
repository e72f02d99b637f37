import { eventStream } from '@/server/http/event-stream.ts';
import { route } from '@/server/http/route.ts';
import { personOf } from '@/server/operations/session.ts';

export const dynamic = 'force-dynamic';

/** One stream a window: which calendars changed, and nothing else. It ends when the session it was opened with does. */
export const GET = route('live', ({ ctx, request }) =>
  eventStream(request, ctx.viewer.id, async () => (await personOf(request.headers))?.id === ctx.viewer.id),
);
