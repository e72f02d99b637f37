import { DEMO_PASSWORD } from '@/server/auth/demo-password.ts';
import { signIn } from '@/server/auth/sign-in.ts';
import { now } from '@/server/clock.ts';
import { json, slowRoute } from '@/server/http/route.ts';
import { addressOf } from '@/server/operations/people/session.ts';
import { refuse } from '@/server/result.ts';
import { settings } from '@/server/settings.ts';

export const POST = slowRoute('stepIn', async ({ body, request }) => {
  const address = settings().demo ? addressOf(body.handle) : null;
  if (!address) return refuse('notFound');
  const result = await signIn(address, DEMO_PASSWORD, request.headers, now());
  return result.ok ? json({ done: true }, 200, result.value.cookies) : result;
});
