import type { RouteName } from '@/contract/routes.ts';
import { readDayLetters, saveDayLetters } from '../../operations/days/index.ts';
import { readDayInWorker } from '../../operations/in-worker/in-worker.ts';
import type { HandlersOf } from '../handler.ts';

export const daysHandlers = {
  readDay: { slow: ({ ctx, query }) => readDayInWorker(ctx, query.of, query.for) },
  readDayLetters: ({ ctx }) => readDayLetters(ctx),
  saveDayLetters: ({ ctx, body }) => saveDayLetters(ctx, body),
} satisfies Partial<HandlersOf<RouteName>>;
