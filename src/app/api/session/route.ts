import { signIn, signOut } from '@/server/auth/accounts.ts';
import { now } from '@/server/clock.ts';
import { json, route } from '@/server/http/route.ts';

export const POST = route('signIn', async ({ body, request }) => {
  const result = await signIn(body.address, body.password, request.headers, now());
  return result.ok ? json({ done: true }, 200, result.value.cookies) : result;
});
export const DELETE = route('signOut', async ({ request }) =>
  json({ done: true }, 200, (await signOut(request.headers)).cookies),
);
