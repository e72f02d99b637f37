import { route } from '@/server/http/route.ts';
import { listRemoved } from '@/server/operations/items/index.ts';

export const GET = route('listRemoved', ({ ctx, params }) => listRemoved(ctx, params.calendar ?? ''));
