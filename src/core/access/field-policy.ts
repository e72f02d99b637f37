import { type FieldName, ITEM_FIELDS } from '../calendar/index.ts';

/** From which way of seeing on a field is sent, by the table of fields; `never` for what only decides, or is no part of a view. */
export const fieldPolicy = Object.fromEntries(
  Object.entries(ITEM_FIELDS).map(([name, { sight }]) => [name, sight === 'asSet' ? 'never' : sight]),
) as { readonly [K in FieldName]: 'busy' | 'title' | 'outline' | 'full' | 'briefed' | 'never' };
