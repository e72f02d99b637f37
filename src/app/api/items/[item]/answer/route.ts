import { route } from '@/server/http/route.ts';
import { answerItem } from '@/server/operations/meetings/index.ts';

export const POST = route('answerItem', ({ ctx, params, body }) => answerItem(ctx, params.item ?? '', body));
