import { route } from '@/server/http/route.ts';
import { readHistory } from '@/server/operations/sightlines.ts';

export const GET = route('readHistory', ({ ctx, params }) => readHistory(ctx, params.calendar ?? ''));
