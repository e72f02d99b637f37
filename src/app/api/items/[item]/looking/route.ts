import { route } from '@/server/http/route.ts';
import { sayLooking } from '@/server/operations/items/index.ts';

export const POST = route('sayLooking', ({ ctx, params, body }) => sayLooking(ctx, params.item ?? '', body));
