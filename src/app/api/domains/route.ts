import { route } from '@/server/http/route.ts';
import { changeDomains, readDomains } from '@/server/operations/people/domains.ts';

export const GET = route('readDomains', ({ ctx }) => readDomains(ctx));
export const PUT = route('changeDomains', ({ ctx, body }) => changeDomains(ctx, body));
