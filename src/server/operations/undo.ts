import type { WrittenAnswer } from '@/contract/items.ts';
import { calendarById } from '../repositories/calendars.ts';
import { itemById, type StoredItem, updateItem } from '../repositories/items.ts';
import { reopenSuggestion } from '../repositories/suggestions.ts';
import { trailByKey } from '../repositories/trail.ts';
import { ok, type Result, refuse } from '../result.ts';
import { announceItems } from './announce.ts';
import type { Context } from './context.ts';
import { decideOn } from './deciding.ts';
import { indexItem } from './indexing.ts';
import { hands, type ItemChange, trailItems, written } from './writing.ts';

const UNDO_FOR = 15 * 60_000;

/**
 * Takes back one write of one's own, for a quarter of an hour: the fields it touched are as before. Refused once someone
 * built on it, and for whoever may no longer add or change there.
 */
export function undo(ctx: Context, key: string): Result<WrittenAnswer> {
  const entry = trailByKey(ctx.db, key);
  if (!entry || entry.actorId !== ctx.viewer.id || entry.calendarId === null || !entry.verb.startsWith('item.'))
    return refuse('notFound');
  if (ctx.now - entry.at > UNDO_FOR) return refuse('notFound');
  const calendar = calendarById(ctx.db, entry.calendarId);
  if (!calendar) return refuse('notFound');
  const decided = decideOn(ctx, calendar);
  const { rights } = decided.decision;
  if (rights.sight === 'nothing') return refuse('notFound');
  const before = entry.before as (StoredItem | null)[];
  const after = entry.after as StoredItem[];
  const now = after.map((item) => itemById(ctx.db, item.id));
  const mine = after.every((item) => item.createdBy === ctx.viewer.id);
  if (rights.change === 'none' || (rights.change === 'own' && !mine))
    return refuse('mayNotChange', { facts: { name: '' } });
  if (now.some((item, i) => item?.version !== after[i]?.version)) return refuse('changedMeanwhile');
  const { changes, token } = ctx.db.write(() => {
    const changes = (now as StoredItem[]).map((current, i): ItemChange => {
      const was = before[i];
      const back: StoredItem = {
        ...(was ?? { ...current, removedAt: ctx.now }),
        ...hands(ctx, calendar),
        id: current.id,
        version: current.version + 1,
        sequence: current.sequence + 1,
      };
      updateItem(ctx.db, back);
      return { before: current, after: back };
    });
    for (const { after: back } of changes) {
      indexItem(ctx.db, calendar, back);
      const series = back.seriesId === null ? null : itemById(ctx.db, back.seriesId);
      if (series) indexItem(ctx.db, calendar, series);
    }
    reopenSuggestion(ctx.db, key);
    return { changes, token: trailItems(ctx, calendar, 'item.undone', changes) };
  });
  announceItems(ctx, calendar, changes);
  const first = changes[0]?.after;
  return ok(written(ctx, decided, first && first.removedAt === null ? first : null, token));
}
