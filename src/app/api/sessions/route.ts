import { sessionsOf } from '@/server/auth/accounts.ts';
import { slowRoute } from '@/server/http/route.ts';
import { ok } from '@/server/result.ts';

export const GET = slowRoute('listSessions', async ({ request }) =>
  ok({ sessions: await sessionsOf(request.headers) }),
);
