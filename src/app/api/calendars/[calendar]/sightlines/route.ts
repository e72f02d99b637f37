import { route } from '@/server/http/route.ts';
import { listSightlines } from '@/server/operations/sightlines.ts';

export const GET = route('listSightlines', ({ ctx, params }) => listSightlines(ctx, params.calendar ?? ''));
