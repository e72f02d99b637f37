import { route } from '@/server/http/route.ts';
import { listSuggestions } from '@/server/operations/suggestions/suggestions.ts';

export const GET = route('listSuggestions', ({ ctx }) => listSuggestions(ctx));
