import { route } from '@/server/http/route.ts';
import { bringInJourneys, listJourneys } from '@/server/operations/openings/index.ts';

export const GET = route('listJourneys', ({ ctx }) => listJourneys(ctx));
export const POST = route('bringInJourneys', ({ ctx, body }) => bringInJourneys(ctx, body));
