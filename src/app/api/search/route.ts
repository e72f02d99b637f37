import { route } from '@/server/http/route.ts';
import { search } from '@/server/operations/search/index.ts';

export const GET = route('search', ({ ctx, query }) => search(ctx, query));
