import { newKey } from '../../ids.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import { insertItem, itemById } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { announceItems, hands, indexItem, trailItems } from '../deciding/index.ts';
import type { Acting } from './project.ts';

/** One happening of a series as an item of its own, at the time it had: what is answered to it alone stands there. */
export function apart(
  ctx: Acting,
  calendar: Calendar,
  series: StoredItem,
  happening: { readonly start: number; readonly end: number; readonly recurrence: string },
): StoredItem {
  const { id, ...fields } = series;
  const after = insertItem(ctx.db, {
    ...fields,
    ...hands(ctx, calendar),
    start: happening.start,
    end: happening.end,
    wall: null,
    days: 0,
    kept: [],
    batch: null,
    key: newKey(),
    seriesId: id,
    recurrence: happening.recurrence,
    rule: null,
    added: [],
    left: [],
    version: 1,
  });
  indexItem(ctx.db, calendar, after);
  const whole = itemById(ctx.db, id);
  if (whole) indexItem(ctx.db, calendar, whole);
  trailItems(ctx, calendar, 'item.changed', [{ before: null, after }]);
  announceItems(ctx, calendar, [{ before: null, after }]);
  return after;
}
