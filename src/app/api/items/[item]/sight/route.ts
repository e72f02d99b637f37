import { route } from '@/server/http/route.ts';
import { readItemSight } from '@/server/operations/sharing/ask.ts';

export const GET = route('readItemSight', ({ ctx, params }) => readItemSight(ctx, params.item ?? ''));
