import { route } from '@/server/http/route.ts';
import { listNotices, readNotices } from '@/server/operations/messages/notices.ts';

export const GET = route('listNotices', ({ ctx }) => listNotices(ctx));
export const POST = route('readNotices', ({ ctx }) => readNotices(ctx));
