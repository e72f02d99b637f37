import { route } from '@/server/http/route.ts';
import { answerSeveral } from '@/server/operations/meetings/index.ts';

export const POST = route('answerSeveral', ({ ctx, body }) => answerSeveral(ctx, body.answers));
