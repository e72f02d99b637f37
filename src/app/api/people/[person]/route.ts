import { route, slowRoute } from '@/server/http/route.ts';
import { changePerson, readPerson } from '@/server/operations/people/leaving.ts';

export const GET = slowRoute('readPerson', ({ ctx, params }) => readPerson(ctx, params.person ?? ''));
export const PUT = route('changePerson', ({ ctx, params, body }) => changePerson(ctx, params.person ?? '', body));
