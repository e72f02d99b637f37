import { route } from '@/server/http/route.ts';
import { answerWish } from '@/server/operations/sharing/rule-wishes.ts';

export const PUT = route('answerWish', ({ ctx, params, body }) => answerWish(ctx, params.wish ?? '', body));
