import type { RouteName } from '@/contract/routes.ts';
import { listBoardsInWorker } from '../../operations/in-worker/in-worker.ts';
import { changeLane, dropLane, listLanes, orderLanes, saveLanes } from '../../operations/lanes/index.ts';
import { ok } from '../../result.ts';
import type { HandlersOf } from '../handler.ts';

export const lanesHandlers = {
  listLanes: ({ ctx }) => ok(listLanes(ctx)),
  saveLanes: ({ ctx, body }) => saveLanes(ctx, body),
  changeLane: ({ ctx, params, body }) => changeLane(ctx, params.lane, body),
  dropLane: ({ ctx, params }) => dropLane(ctx, params.lane),
  orderLanes: ({ ctx, body }) => orderLanes(ctx, body.lanes),
  listBoards: { slow: ({ ctx, body }) => listBoardsInWorker(ctx, body) },
} satisfies Partial<HandlersOf<RouteName>>;
