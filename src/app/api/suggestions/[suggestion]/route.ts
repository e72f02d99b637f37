import { route } from '@/server/http/route.ts';
import { answerSuggestion } from '@/server/operations/suggestions/suggestions.ts';

export const PUT = route('answerSuggestion', ({ ctx, params, body }) =>
  answerSuggestion(ctx, params.suggestion ?? '', body),
);
