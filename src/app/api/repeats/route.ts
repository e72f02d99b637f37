import { route } from '@/server/http/route.ts';
import { previewRepeat } from '@/server/operations/items/index.ts';

export const POST = route('previewRepeat', ({ body }) => previewRepeat(body));
