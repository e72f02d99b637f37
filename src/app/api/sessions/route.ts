import { sessionsOf } from '@/server/auth/accounts.ts';
import { route } from '@/server/http/route.ts';
import { ok } from '@/server/result.ts';

export const GET = route('listSessions', async ({ request }) => ok({ sessions: await sessionsOf(request.headers) }));
