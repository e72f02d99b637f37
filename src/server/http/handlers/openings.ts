import type { RouteName } from '@/contract/routes.ts';
import {
  checkTimeBeside,
  findRoomBeside,
  findRoundBeside,
  findSeriesTimesBeside,
  findTimesBeside,
  readTimesDayBeside,
} from '../../operations/beside/beside.ts';
import {
  bringInJourneys,
  listJourneys,
  readKeeps,
  saveKeeps,
  takeOutJourneys,
} from '../../operations/openings/index.ts';
import type { HandlersOf } from '../handler.ts';

export const openingsHandlers = {
  checkTime: { slow: ({ ctx, params, body }) => checkTimeBeside(ctx, params.calendar, body) },
  readKeeps: ({ ctx, params }) => readKeeps(ctx, params.calendar),
  saveKeeps: ({ ctx, params, body }) => saveKeeps(ctx, params.calendar, body),
  findRound: { slow: ({ ctx, params, body }) => findRoundBeside(ctx, params.calendar, body) },
  findRoom: { slow: ({ ctx, params, body }) => findRoomBeside(ctx, params.calendar, body) },
  findTimes: { slow: ({ ctx, params, body }) => findTimesBeside(ctx, params.calendar, body) },
  readTimesDay: { slow: ({ ctx, params, body }) => readTimesDayBeside(ctx, params.calendar, body) },
  findSeriesTimes: { slow: ({ ctx, params, body }) => findSeriesTimesBeside(ctx, params.calendar, body) },
  listJourneys: ({ ctx }) => listJourneys(ctx),
  bringInJourneys: ({ ctx, body }) => bringInJourneys(ctx, body),
  takeOutJourneys: ({ ctx }) => {
    const result = takeOutJourneys(ctx);
    if (!result.ok) return result;
    return new Response(result.value, {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="journeys.csv"',
        'cache-control': 'no-store',
      },
    });
  },
} satisfies Partial<HandlersOf<RouteName>>;
