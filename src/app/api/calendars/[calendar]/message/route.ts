import { route } from '@/server/http/route.ts';
import { previewMessage } from '@/server/operations/sharing/message-text.ts';

export const POST = route('previewMessage', ({ ctx, params, body }) =>
  previewMessage(ctx, params.calendar ?? '', body),
);
