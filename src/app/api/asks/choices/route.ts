import { route } from '@/server/http/route.ts';
import { askChoices } from '@/server/operations/sharing/make-ask.ts';

export const POST = route('askChoices', ({ ctx, body }) => askChoices(ctx, body));
