import type { RouteName } from '@/contract/routes.ts';
import { whoCanComeInWorker } from '../../operations/in-worker/in-worker.ts';
import {
  actOnMeeting,
  answerItem,
  answerSeveral,
  chooseOffer,
  fixHold,
  holdTimes,
  makeOffer,
  makeRound,
  moveMeeting,
  readHolds,
  readMeeting,
  readOffer,
  sayIt,
  strangerOf,
  takeBack,
  withdrawOffer,
} from '../../operations/meetings/index.ts';
import type { HandlersOf } from '../handler.ts';

export const meetingsHandlers = {
  makeOffer: ({ ctx, params, body }) => makeOffer(ctx, params.item, body),
  withdrawOffer: ({ ctx, params }) => withdrawOffer(ctx, params.item),
  readOffer: ({ params, request }) => readOffer(strangerOf(request.headers), params.offer),
  chooseOffer: ({ params, body, request }) => chooseOffer(strangerOf(request.headers), params.offer, body),
  makeRound: ({ ctx, params, body }) => makeRound(ctx, params.calendar, body),
  holdTimes: ({ ctx, params, body }) => holdTimes(ctx, params.calendar, body),
  readHolds: ({ ctx, params }) => readHolds(ctx, params.item),
  fixHold: ({ ctx, params, body }) => fixHold(ctx, params.item, body),
  readMeeting: ({ ctx, params }) => readMeeting(ctx, params.item),
  actOnMeeting: ({ ctx, params, body }) => actOnMeeting(ctx, params.item, body),
  answerItem: ({ ctx, params, body }) => answerItem(ctx, params.item, body),
  answerSeveral: ({ ctx, body }) => answerSeveral(ctx, body.answers),
  moveMeeting: ({ ctx, params, body }) => moveMeeting(ctx, params.item, body),
  whoCanCome: ({ ctx, params, body }) => whoCanComeInWorker(ctx, params.calendar, body),
  sayIt: ({ ctx, params }) => sayIt(ctx, params.sending),
  takeBack: ({ ctx, params }) => takeBack(ctx, params.sending),
} satisfies Partial<HandlersOf<RouteName>>;
