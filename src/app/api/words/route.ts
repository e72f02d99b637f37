import { route } from '@/server/http/route.ts';
import { changeWords } from '@/server/operations/sharing/findings.ts';

export const PUT = route('changeWords', ({ ctx, body }) => changeWords(ctx, body));
