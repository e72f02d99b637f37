import { route } from '@/server/http/route.ts';
import { readTrail } from '@/server/operations/items/index.ts';
import { bringBackMeeting } from '@/server/operations/meetings/index.ts';

export const GET = route('readTrail', ({ ctx, params }) => readTrail(ctx, params.item ?? ''));
export const POST = route('bringBack', ({ ctx, params }) => bringBackMeeting(ctx, params.item ?? ''));
