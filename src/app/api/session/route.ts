import { signIn } from '@/server/auth/sign-in.ts';
import { now } from '@/server/clock.ts';
import { json, slowRoute } from '@/server/http/route.ts';
import { signOutHere } from '@/server/operations/people/session.ts';

export const POST = slowRoute('signIn', async ({ body, request }) => {
  const result = await signIn(body.address, body.password, request.headers, now());
  return result.ok ? json({ done: true }, 200, result.value.cookies) : result;
});
export const DELETE = slowRoute('signOut', async ({ request }) =>
  json({ done: true }, 200, (await signOutHere(request.headers)).cookies),
);
