import { slowRoute } from '@/server/http/route.ts';
import { sayHands } from '@/server/operations/people/accounts.ts';

// The one act of a role account's window that comes before it is said who is behind it.
export const POST = slowRoute('sayHands', async ({ ctx, body }) => sayHands(ctx, body));
