import { route } from '@/server/http/route.ts';
import { suspendSharing } from '@/server/operations/sharing/suspend-sharing.ts';

export const PUT = route('suspendSharing', ({ ctx, params, body }) =>
  suspendSharing(ctx, params.calendar ?? '', body.suspended),
);
