import { route } from '@/server/http/route.ts';
import { takeMessage } from '@/server/operations/messages/list-messages.ts';

export const POST = route('takeMessage', ({ ctx, params }) => takeMessage(ctx, params.message ?? ''));
