import { route, slowRoute } from '@/server/http/route.ts';
import { addPersonWithAccount } from '@/server/operations/people/found-people.ts';
import { listPeople } from '@/server/operations/people/people.ts';

export const GET = route('listPeople', ({ ctx }) => listPeople(ctx));
export const POST = slowRoute('addPerson', ({ ctx, body }) => addPersonWithAccount(ctx, body));
