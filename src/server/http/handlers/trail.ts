import type { RouteName } from '@/contract/routes.ts';
import { listRemoved, readTrail } from '../../operations/items/index.ts';
import { bringBackMeeting } from '../../operations/meetings/index.ts';
import type { HandlersOf } from '../handler.ts';

export const trailHandlers = {
  readTrail: ({ ctx, params }) => readTrail(ctx, params.item),
  listRemoved: ({ ctx, params }) => listRemoved(ctx, params.calendar),
  bringBack: ({ ctx, params }) => bringBackMeeting(ctx, params.item),
} satisfies Partial<HandlersOf<RouteName>>;
