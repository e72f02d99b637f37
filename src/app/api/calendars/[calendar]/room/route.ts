import { slowRoute } from '@/server/http/route.ts';
import { findRoomBeside } from '@/server/operations/beside/beside.ts';

export const POST = slowRoute('findRoom', ({ ctx, params, body }) => findRoomBeside(ctx, params.calendar ?? '', body));
