import { route } from '@/server/http/route.ts';
import { createItem } from '@/server/operations/create-item.ts';
import { listItems } from '@/server/operations/list-items.ts';

export const GET = route('listItems', ({ ctx, params, query }) => listItems(ctx, params.calendar ?? '', query));
export const POST = route('createItem', ({ ctx, params, body }) => createItem(ctx, params.calendar ?? '', body));
