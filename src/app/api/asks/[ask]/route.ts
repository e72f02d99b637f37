import { route } from '@/server/http/route.ts';
import { answerAsk } from '@/server/operations/sharing/answer-ask.ts';
import { nudgeAsk, takeBackAsk } from '@/server/operations/sharing/make-ask.ts';

export const POST = route('answerAsk', ({ ctx, params, body }) => answerAsk(ctx, params.ask ?? '', body));
export const PUT = route('nudgeAsk', ({ ctx, params }) => nudgeAsk(ctx, params.ask ?? ''));
export const DELETE = route('takeBackAsk', ({ ctx, params }) => takeBackAsk(ctx, params.ask ?? ''));
