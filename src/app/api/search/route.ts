import { slowRoute } from '@/server/http/route.ts';
import { searchBeside } from '@/server/operations/beside/beside.ts';

export const GET = slowRoute('search', ({ ctx, query }) => searchBeside(ctx, query));
