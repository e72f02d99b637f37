import { route } from '@/server/http/route.ts';
import { fixHold, readHolds } from '@/server/operations/meetings/index.ts';

export const GET = route('readHolds', ({ ctx, params }) => readHolds(ctx, params.item ?? ''));
export const POST = route('fixHold', ({ ctx, params, body }) => fixHold(ctx, params.item ?? '', body));
