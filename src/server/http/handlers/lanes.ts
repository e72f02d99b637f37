import type { RouteName } from '@/contract/routes.ts';
import { listBoardsBeside } from '../../operations/beside/beside.ts';
import { changeLane, dropLane, keepLanes, listLanes, orderLanes } from '../../operations/lanes/index.ts';
import { ok } from '../../result.ts';
import type { HandlersOf } from '../handler.ts';

export const lanesHandlers = {
  listLanes: ({ ctx }) => ok(listLanes(ctx)),
  keepLanes: ({ ctx, body }) => keepLanes(ctx, body),
  changeLane: ({ ctx, params, body }) => changeLane(ctx, params.lane, body),
  dropLane: ({ ctx, params }) => dropLane(ctx, params.lane),
  orderLanes: ({ ctx, body }) => orderLanes(ctx, body.lanes),
  listBoards: { slow: ({ ctx, body }) => listBoardsBeside(ctx, body) },
} satisfies Partial<HandlersOf<RouteName>>;
