import { withdrawSession } from '@/server/auth/accounts.ts';
import { route } from '@/server/http/route.ts';

export const DELETE = route('withdrawSession', ({ request, params }) =>
  withdrawSession(request.headers, params.session ?? ''),
);
