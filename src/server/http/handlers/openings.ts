import type { RouteName } from '@/contract/routes.ts';
import {
  checkTimeInWorker,
  findRoomInWorker,
  findRoundInWorker,
  findSeriesTimesInWorker,
  findTimesInWorker,
  readTimesDayInWorker,
} from '../../operations/in-worker/in-worker.ts';
import {
  bringInJourneys,
  listJourneys,
  readTimePreferences,
  saveTimePreferences,
  takeOutJourneys,
} from '../../operations/openings/index.ts';
import { csvFile } from '../download.ts';
import type { HandlersOf } from '../handler.ts';

export const openingsHandlers = {
  checkTime: { slow: ({ ctx, params, body }) => checkTimeInWorker(ctx, params.calendar, body) },
  readTimePreferences: ({ ctx, params }) => readTimePreferences(ctx, params.calendar),
  saveTimePreferences: ({ ctx, params, body }) => saveTimePreferences(ctx, params.calendar, body),
  findRound: { slow: ({ ctx, params, body }) => findRoundInWorker(ctx, params.calendar, body) },
  findRoom: { slow: ({ ctx, params, body }) => findRoomInWorker(ctx, params.calendar, body) },
  findTimes: { slow: ({ ctx, params, body }) => findTimesInWorker(ctx, params.calendar, body) },
  readTimesDay: { slow: ({ ctx, params, body }) => readTimesDayInWorker(ctx, params.calendar, body) },
  findSeriesTimes: { slow: ({ ctx, params, body }) => findSeriesTimesInWorker(ctx, params.calendar, body) },
  listJourneys: ({ ctx }) => listJourneys(ctx),
  bringInJourneys: ({ ctx, body }) => bringInJourneys(ctx, body),
  takeOutJourneys: ({ ctx }) => {
    const result = takeOutJourneys(ctx);
    if (!result.ok) return result;
    return csvFile('journeys.csv', result.value);
  },
} satisfies Partial<HandlersOf<RouteName>>;
