import { route } from '@/server/http/route.ts';
import { setLinkShown } from '@/server/operations/sharing/link-feeds.ts';

export const PUT = route('setLinkShown', ({ ctx, params, body }) =>
  setLinkShown(ctx, params.calendar ?? '', params.link ?? '', body),
);
