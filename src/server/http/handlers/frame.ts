import type { RouteName } from '@/contract/routes.ts';
import { sessionHolds } from '../../auth/sessions.ts';
import { readFrame } from '../../operations/frame/read-frame.ts';
import { changePreferences } from '../../operations/people/people.ts';
import { ok } from '../../result.ts';
import { eventStream } from '../event-stream.ts';
import type { HandlersOf } from '../handler.ts';
import { openApiText } from '../openapi.ts';
import { jsonText } from '../route.ts';

export const frameHandlers = {
  readFrame: ({ ctx }) => ok(readFrame(ctx)),
  savePreferences: ({ ctx, body }) => changePreferences(ctx, body),
  /** One stream a window: which calendars changed, and nothing else. It ends when the session it was opened with does. */
  live: ({ ctx, query, request }) => {
    const session = ctx.session ?? '';
    return eventStream(request, ctx.viewer.id, session, () => sessionHolds(session), query.page);
  },
  openapi: () => jsonText(openApiText(), 200),
} satisfies Partial<HandlersOf<RouteName>>;
