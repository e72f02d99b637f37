import type { RouteName } from '@/contract/routes.ts';
import { answerSuggestion, listSuggestions, putForward } from '../../operations/suggestions/suggestions.ts';
import type { HandlersOf } from '../handler.ts';

export const suggestionsHandlers = {
  putForward: ({ ctx, params, body }) => putForward(ctx, params.calendar, body),
  listSuggestions: ({ ctx }) => listSuggestions(ctx),
  answerSuggestion: ({ ctx, params, body }) => answerSuggestion(ctx, params.suggestion, body),
} satisfies Partial<HandlersOf<RouteName>>;
