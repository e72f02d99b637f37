import { route, slowRoute } from '@/server/http/route.ts';
import { addAttachment, listAttachments } from '@/server/operations/items/index.ts';

export const GET = route('listAttachments', ({ ctx, params }) => listAttachments(ctx, params.item ?? ''));
export const POST = slowRoute('addAttachment', ({ ctx, params, query, request }) =>
  addAttachment(ctx, params.item ?? '', query.name, request.body),
);
