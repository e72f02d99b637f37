import { route } from '@/server/http/route.ts';
import { chooseOffer, readOffer, strangerOf } from '@/server/operations/meetings/index.ts';

export const GET = route('readOffer', ({ params, request }) =>
  readOffer(strangerOf(request.headers), params.offer ?? ''),
);
export const POST = route('chooseOffer', ({ params, body, request }) =>
  chooseOffer(strangerOf(request.headers), params.offer ?? '', body),
);
