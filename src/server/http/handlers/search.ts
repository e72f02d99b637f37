import type { RouteName } from '@/contract/routes.ts';
import { findDaysBeside, searchBeside } from '../../operations/beside/beside.ts';
import type { HandlersOf } from '../handler.ts';

export const searchHandlers = {
  search: { slow: ({ ctx, query }) => searchBeside(ctx, query) },
  findDays: { slow: ({ ctx, params, query }) => findDaysBeside(ctx, params.calendar, query) },
} satisfies Partial<HandlersOf<RouteName>>;
