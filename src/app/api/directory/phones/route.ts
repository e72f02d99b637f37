import { route } from '@/server/http/route.ts';
import { readPhones } from '@/server/operations/people/people.ts';

export const POST = route('readPhones', ({ ctx, body }) => readPhones(ctx, body.addresses));
