import { route } from '@/server/http/route.ts';
import { bringIn } from '@/server/operations/import-file.ts';

export const POST = route('bringIn', ({ ctx, params }) => bringIn(ctx, params.preview ?? ''));
