import type { z } from 'zod';
import type { removeQuery } from '@/contract/items/items.ts';
import { ruleBefore } from '@/core/recurrence/index.ts';
import { parseDate, parseWall, toWall } from '@/core/time/index.ts';
import { itemById, replacementsOf } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type Context,
  Directory,
  type FoundItem,
  findByAnyId,
  type ItemsWritten,
  isRefusal,
  mayOn,
  writeItems,
} from '../deciding/index.ts';

/**
 * Removes what may be removed at whatever sight it is seen, by the id it is seen under. Removes an item, one occurrence of a series, or a series with
 * all that stands for its occurrences. Can be undone. `by` is whose work it is, where that is not the one who writes.
 */
export function removeItem(
  ctx: Context,
  id: string,
  query: z.infer<typeof removeQuery>,
  by = ctx.viewer.id,
): Result<ItemsWritten> {
  const found = findByAnyId(ctx, id);
  if (isRefusal(found)) return found;
  const { decided, item } = found;
  // Below full no version is given out, so none can be sent; in full it has to be the one seen.
  const full = 'notes' in found.view;
  const { calendar } = decided;
  if (!found.may.remove)
    return refuse('mayNotRemove', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
  if (full && query.version === undefined) return refuse('badInput', { fields: { version: 'unclear' } });
  if (full && item.version !== query.version) return refuse('changedMeanwhile', { data: found.view });
  const items = planned(ctx, found, query.scope).map(({ before, after }) => ({
    before,
    after: { ...after, ...authorship(ctx, calendar, by), version: after.version + 1 },
  }));
  return ok({ ...writeItems(ctx, calendar, 'item.removed', items), decided, item: null });
}

type Gone = { before: StoredItem; after: StoredItem };

function planned(ctx: Context, found: FoundItem, scope: 'one' | 'later' | 'all'): Gone[] {
  const { item, occurrence } = found;
  const gone = (i: StoredItem) => ({ before: i, after: { ...i, removedAt: ctx.now } });
  const leftOut = (series: StoredItem, recurrence: string) => ({
    before: series,
    after: { ...series, left: [...series.left, recurrence] },
  });
  if (occurrence && scope === 'one') return [leftOut(item, occurrence.recurrence)];
  if (occurrence && scope === 'later') {
    const staying = replacementsOf(ctx.db, item.id).filter((r) => (r.recurrence ?? '') >= occurrence.recurrence);
    const wall = item.allDay ? parseDate(occurrence.recurrence) : parseWall(occurrence.recurrence);
    const first = item.wall ?? (item.allDay ? item.start : toWall(item.zone, item.start));
    if (wall !== null && wall > first) {
      const rule = item.rule === null ? null : ruleBefore({ kind: 'rule', text: item.rule }, wall);
      const before = (text: string) => text < occurrence.recurrence;
      const after = { ...item, rule, added: item.added.filter(before), left: item.left.filter(before) };
      return [
        { before: item, after },
        ...staying.filter((r) => mayOn(ctx, found.decided.decision, r).remove).map(gone),
      ];
    }
  }
  if (item.seriesId !== null) {
    const series = itemById(ctx.db, item.seriesId);
    return series && series.removedAt === null
      ? [gone(item), leftOut(series, item.recurrence as string)]
      : [gone(item)];
  }
  // What stands for a single occurrence and is withheld from whoever removes the series stays as it is.
  const { decision } = found.decided;
  const mayGo = (i: StoredItem): boolean => mayOn(ctx, decision, i).remove;
  return [gone(item), ...replacementsOf(ctx.db, item.id).filter(mayGo).map(gone)];
}
