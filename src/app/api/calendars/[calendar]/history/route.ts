import { route } from '@/server/http/route.ts';
import { readHistory } from '@/server/operations/sharing/sightlines.ts';

export const GET = route('readHistory', ({ ctx, params }) => readHistory(ctx, params.calendar ?? ''));
