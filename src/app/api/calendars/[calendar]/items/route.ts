import { route, slowRoute } from '@/server/http/route.ts';
import { createMeetingBeside, listItemsBeside } from '@/server/operations/beside/beside.ts';
import { createMeeting } from '@/server/operations/meetings/index.ts';

export const GET = slowRoute('listItems', ({ ctx, params, query }) =>
  listItemsBeside(ctx, params.calendar ?? '', query),
);
export const POST = route(
  'createItem',
  ({ ctx, params, body }) => createMeeting(ctx, params.calendar ?? '', body),
  ({ ctx, params, body }) => createMeetingBeside(ctx, params.calendar ?? '', body),
);
