import { route } from '@/server/http/route.ts';
import { listApart, rejoinItem } from '@/server/operations/meetings/index.ts';

export const GET = route('listApart', ({ ctx, params }) => listApart(ctx, params.item ?? ''));
export const POST = route('rejoinItem', ({ ctx, params, body }) => rejoinItem(ctx, params.item ?? '', body.version));
