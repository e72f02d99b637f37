import type { Calendar } from '../../../repositories/calendars.ts';
import { insertItem, updateItem } from '../../../repositories/item-writes.ts';
import { itemById } from '../../../repositories/items.ts';
import type { StoredItem } from '../../../repositories/stored-item.ts';
import type { Context } from '../context/context.ts';
import { announceItems } from './announce.ts';
import { indexItem } from './indexing.ts';
import { trailOn } from './trail.ts';
import { tasksFollow } from './write-tasks.ts';
import type { ItemChange, Written } from './written.ts';

/** Who writes, and when. */
export type Acting = Pick<Context, 'db' | 'now' | 'viewer'>;

/** An item as it is to be from now on; a new one has no row number yet. */
export type ItemToWrite =
  | { readonly before: StoredItem; readonly after: StoredItem }
  | { readonly before: null; readonly after: Omit<StoredItem, 'id'> };

/**
 * Writes items of one calendar, in one transaction: their rows, the index where their times changed (that of their series too), the tasks
 * that belong to them, one trail row, and, once it is committed, what open windows are told. Every write on items but a file's goes through here. Whether it
 * may be done is the caller's to decide, in the same transaction. `noted` stands in the trail row in place of the items, where the
 * write is about something that hangs on them.
 */
export function writeItems(
  ctx: Acting,
  calendar: Calendar,
  verb: string,
  items: readonly ItemToWrite[],
  noted?: { readonly before: unknown; readonly after: unknown },
): Written {
  if (items.length === 0) return { changes: [], undo: '' };
  return ctx.db.write(() => {
    const changes = items.map(({ before, after }): ItemChange => {
      if (before === null) return { before, after: insertItem(ctx.db, after) };
      updateItem(ctx.db, after);
      return { before, after };
    });
    indexChanged(ctx, calendar, changes);
    tasksFollow(ctx, changes);
    const undo = leaveTrail(ctx, calendar, verb, changes, noted);
    announceItems(ctx, calendar, changes);
    return { changes, undo };
  });
}

/**
 * Moves items from one calendar into another, each as it is to be there. Both calendars get a trail row of their own: nobody reads
 * in one what only the other may show.
 */
export function moveItems(
  ctx: Acting,
  from: Calendar,
  to: Calendar,
  items: readonly { readonly before: StoredItem; readonly after: StoredItem }[],
): void {
  ctx.db.write(() => {
    for (const { after } of items) updateItem(ctx.db, after);
    for (const { after } of items) indexItem(ctx.db, to, after);
    const gone = items.map(({ before }) => ({ before, after: { ...before, removedAt: ctx.now } }));
    const here = items.map(({ after }) => ({ before: null, after }));
    leaveTrail(ctx, from, 'item.moved', gone);
    leaveTrail(ctx, to, 'item.movedHere', here);
    announceItems(ctx, from, gone);
    announceItems(ctx, to, here);
  });
}

/** What of an item the index is made of. */
const timesOf = (item: StoredItem): string => {
  const { start, end, allDay, zone, wall, days, rule, added, left, removedAt, seriesId, recurrence } = item;
  return JSON.stringify([start, end, allDay, zone, wall, days, rule, added, left, removedAt, seriesId, recurrence]);
};

function indexChanged(ctx: Acting, calendar: Calendar, changes: readonly ItemChange[]): void {
  const moved = changes.filter(({ before, after }) => before === null || timesOf(before) !== timesOf(after));
  for (const { after } of moved) indexItem(ctx.db, calendar, after);
  // A series has no occurrence where an item stands for it.
  const done = new Set(moved.map(({ after }) => after.id));
  const series = new Set(moved.flatMap(({ before, after }) => [before?.seriesId ?? [], after.seriesId ?? []].flat()));
  for (const id of series) {
    const item = itemById(ctx.db, id);
    if (item && !done.has(id)) indexItem(ctx.db, calendar, item);
  }
}

function leaveTrail(
  ctx: Acting,
  calendar: Calendar,
  verb: string,
  changes: readonly ItemChange[],
  noted: { readonly before: unknown; readonly after: unknown } = {
    before: changes.map((c) => c.before),
    after: changes.map((c) => c.after),
  },
): string {
  return trailOn(ctx, calendar, changes[0]?.after.key ?? '', verb, noted.before, noted.after);
}
