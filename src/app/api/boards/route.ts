import { slowRoute } from '@/server/http/route.ts';
import { listBoardsBeside } from '@/server/operations/beside/beside.ts';

export const POST = slowRoute('listBoards', ({ ctx, body }) => listBoardsBeside(ctx, body));
