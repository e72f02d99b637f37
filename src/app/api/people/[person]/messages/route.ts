import { route } from '@/server/http/route.ts';
import { listMessages, readMessages } from '@/server/operations/messages/list-messages.ts';

export const GET = route('listMessages', ({ ctx, params, query }) =>
  listMessages(ctx, params.person ?? '', query.before ?? null),
);
export const POST = route('readMessages', ({ ctx, params, body }) =>
  readMessages(ctx, params.person ?? '', body.messages),
);
