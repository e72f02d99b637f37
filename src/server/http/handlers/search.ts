import type { RouteName } from '@/contract/routes.ts';
import { findDaysInWorker, searchInWorker } from '../../operations/in-worker/in-worker.ts';
import type { HandlersOf } from '../handler.ts';

export const searchHandlers = {
  search: { slow: ({ ctx, query }) => searchInWorker(ctx, query) },
  findDays: { slow: ({ ctx, params, query }) => findDaysInWorker(ctx, params.calendar, query) },
} satisfies Partial<HandlersOf<RouteName>>;
