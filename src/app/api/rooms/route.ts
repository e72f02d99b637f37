import { route } from '@/server/http/route.ts';
import { addRoom } from '@/server/operations/people/rooms.ts';

export const POST = route('addRoom', ({ ctx, body }) => addRoom(ctx, body));
