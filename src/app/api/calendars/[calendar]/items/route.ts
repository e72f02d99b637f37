import { route, slowRoute } from '@/server/http/route.ts';
import { listItemsBeside } from '@/server/operations/beside/beside.ts';
import { createItem } from '@/server/operations/items/create-item.ts';

export const GET = slowRoute('listItems', ({ ctx, params, query }) =>
  listItemsBeside(ctx, params.calendar ?? '', query),
);
export const POST = route('createItem', ({ ctx, params, body }) => createItem(ctx, params.calendar ?? '', body));
