import { json, route, slowRoute } from '@/server/http/route.ts';
import { askWayIn, comeIn } from '@/server/operations/people/guests.ts';

export const POST = route('askWayIn', ({ body, request }) => askWayIn(body.address, request.headers));
export const PUT = slowRoute('comeIn', async ({ body, request }) => {
  const result = await comeIn(body.token, request.headers);
  return result.ok ? json({ done: true }, 200, result.value.cookies) : result;
});
