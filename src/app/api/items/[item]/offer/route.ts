import { route } from '@/server/http/route.ts';
import { makeOffer, withdrawOffer } from '@/server/operations/meetings/index.ts';

export const POST = route('makeOffer', ({ ctx, params, body }) => makeOffer(ctx, params.item ?? '', body));
export const DELETE = route('withdrawOffer', ({ ctx, params }) => withdrawOffer(ctx, params.item ?? ''));
