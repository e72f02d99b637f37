import { route } from '@/server/http/route.ts';
import { moveMeeting } from '@/server/operations/meetings/index.ts';

export const POST = route('moveMeeting', ({ ctx, params, body }) => moveMeeting(ctx, params.item ?? '', body));
