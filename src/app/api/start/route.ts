import { route } from '@/server/http/route.ts';
import { foundOrganisation } from '@/server/operations/found-people.ts';

export const POST = route('foundOrganisation', ({ body }) => foundOrganisation(body));
