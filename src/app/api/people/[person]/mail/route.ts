import { route } from '@/server/http/route.ts';
import { writeMailFor } from '@/server/operations/messages/write-mail.ts';

export const POST = route('writeMail', ({ ctx, params, body }) => writeMailFor(ctx, params.person ?? '', body));
