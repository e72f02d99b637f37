import { route } from '@/server/http/route.ts';
import { readItem } from '@/server/operations/deciding/find-item.ts';
import { changeItem } from '@/server/operations/items/change-item.ts';
import { removeItem } from '@/server/operations/items/remove-item.ts';

export const GET = route('readItem', ({ ctx, params }) => readItem(ctx, params.item ?? ''));
export const PATCH = route('changeItem', ({ ctx, params, body }) => changeItem(ctx, params.item ?? '', body));
export const DELETE = route('removeItem', ({ ctx, params, query }) => removeItem(ctx, params.item ?? '', query));
