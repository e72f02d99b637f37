import { route } from '@/server/http/route.ts';
import { previewAccess } from '@/server/operations/preview-access.ts';

export const POST = route('previewAccess', ({ ctx, params, body }) => previewAccess(ctx, params.calendar ?? '', body));
