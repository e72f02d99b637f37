import { slowRoute } from '@/server/http/route.ts';
import { foundOrganisation } from '@/server/operations/people/found-people.ts';

export const POST = slowRoute('foundOrganisation', ({ body }) => foundOrganisation(body));
