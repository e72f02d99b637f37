import { route } from '@/server/http/route.ts';
import { listLinkItemsBeside } from '@/server/operations/beside/beside.ts';

export const GET = route('listLinkItems', ({ params, query, request }) =>
  listLinkItemsBeside(params.link ?? '', request.headers, query),
);
