import { route } from '@/server/http/route.ts';
import { readKeeps, saveKeeps } from '@/server/operations/openings/index.ts';

export const GET = route('readKeeps', ({ ctx, params }) => readKeeps(ctx, params.calendar ?? ''));
export const PUT = route('saveKeeps', ({ ctx, params, body }) => saveKeeps(ctx, params.calendar ?? '', body));
