import { route } from '@/server/http/route.ts';
import { copyItem } from '@/server/operations/meetings/index.ts';

export const POST = route('copyItem', ({ ctx, params, body }) => copyItem(ctx, params.item ?? '', body.dates));
