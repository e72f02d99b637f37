import { route } from '@/server/http/route.ts';
import { actOnMeeting, readMeeting } from '@/server/operations/meetings/index.ts';

export const GET = route('readMeeting', ({ ctx, params }) => readMeeting(ctx, params.item ?? ''));
export const POST = route('actOnMeeting', ({ ctx, params, body }) => actOnMeeting(ctx, params.item ?? '', body));
