import { newKey } from '../../ids.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { type Acting, authorship, type ItemChange, writeItems } from '../deciding/index.ts';

/** One occurrence of a series as an item of its own at its own time, to hold an answer given to it alone. */
export function apart(
  ctx: Acting,
  calendar: Calendar,
  series: StoredItem,
  occurrence: { readonly start: number; readonly end: number; readonly recurrence: string },
): StoredItem {
  const { id, ...fields } = series;
  const after = {
    ...fields,
    ...authorship(ctx, calendar),
    start: occurrence.start,
    end: occurrence.end,
    wall: null,
    days: 0,
    kept: [],
    batch: null,
    key: newKey(),
    seriesId: id,
    recurrence: occurrence.recurrence,
    rule: null,
    added: [],
    left: [],
    version: 1,
  };
  const [change] = writeItems(ctx, calendar, 'item.changed', [{ before: null, after }]).changes;
  return (change as ItemChange).after;
}
