import { sessionHolds } from '@/server/auth/sessions.ts';
import { eventStream } from '@/server/http/event-stream.ts';
import { route } from '@/server/http/route.ts';

export const dynamic = 'force-dynamic';

/** One stream a window: which calendars changed, and nothing else. It ends when the session it was opened with does. */
export const GET = route('live', ({ ctx, request }) => {
  const session = ctx.session ?? '';
  return eventStream(request, ctx.viewer.id, session, () => sessionHolds(session));
});
