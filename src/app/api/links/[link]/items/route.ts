import { route } from '@/server/http/route.ts';
import { listLinkItems } from '@/server/operations/sharing/links.ts';

export const GET = route('listLinkItems', ({ params, query, request }) =>
  listLinkItems(params.link ?? '', query, request.headers),
);
