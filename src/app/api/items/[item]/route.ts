import { route } from '@/server/http/route.ts';
import { changeMeetingBeside } from '@/server/operations/beside/beside.ts';
import { readItem } from '@/server/operations/deciding/find-item.ts';
import { changeMeeting, removeMeeting } from '@/server/operations/meetings/index.ts';

export const GET = route('readItem', ({ ctx, params }) => readItem(ctx, params.item ?? ''));
export const PATCH = route(
  'changeItem',
  ({ ctx, params, body }) => changeMeeting(ctx, params.item ?? '', body),
  ({ ctx, params, body }) => changeMeetingBeside(ctx, params.item ?? '', body),
);
export const DELETE = route('removeItem', ({ ctx, params, query }) => removeMeeting(ctx, params.item ?? '', query));
