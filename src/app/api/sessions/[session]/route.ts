import { slowRoute } from '@/server/http/route.ts';
import { withdrawOwnSession } from '@/server/operations/people/session.ts';

export const DELETE = slowRoute('withdrawSession', ({ ctx, request, params }) =>
  withdrawOwnSession(ctx, request.headers, params.session ?? ''),
);
