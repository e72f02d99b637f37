import type { ItemWire, WrittenAnswer } from '@/contract/items/items.ts';
import { type MayItem, mayItem } from '@/core/access/index.ts';
import type { SharedCollection } from '../../../repositories/collections.ts';
import type { StoredItem } from '../../../repositories/stored-item.ts';
import type { Decided } from '../access/deciding.ts';
import type { Context } from '../context/context.ts';
import { Directory } from '../context/directory.ts';
import { RowItem, rowOf, standingOf } from '../reading/row-item.ts';
import { viewOfRow } from '../reading/views.ts';
import type { Written } from './written.ts';

/** What an operation wrote, in one calendar, and which item it was about (`null`: one that is gone), at which of its occurrences. */
export interface ItemsWritten extends Written {
  readonly decided: Decided;
  readonly item: StoredItem | null;
  readonly occurrence?: { readonly start: number; readonly end: number } | undefined;
}

/** What the writer gets back: the item as they now see it, which may be not at all, and the key that undoes it. */
export function written(
  ctx: Context,
  { decided, item, undo, occurrence }: Omit<ItemsWritten, 'changes'>,
): WrittenAnswer {
  return { item: item && viewFor(ctx, decided, item, occurrence), undo };
}

/** One item as the viewer sees it now. */
export function viewFor(
  ctx: Context,
  { decision }: Decided,
  item: StoredItem,
  occurrence: { start: number; end: number } = item,
  directory = new Directory(ctx.db),
): ItemWire | null {
  const row = rowOf(item, occurrence.start, occurrence.end);
  return viewOfRow(ctx.db, directory, row, { person: ctx.viewer, decision });
}

/** Whose work a write is, and for whom: the two names every write carries. `by` is somebody else where they put it forward. */
export function authorship(ctx: Context, of: Pick<SharedCollection, 'ownerId'>, by = ctx.viewer.id) {
  return { changedBy: by, changedFor: of.ownerId, changedAt: ctx.now };
}

/** What the viewer may do with an item now, whether they see it or not. */
export function mayOn(ctx: Context, decision: Decided['decision'], item: StoredItem): MayItem {
  const row = rowOf(item);
  return mayItem(new RowItem(row, new Directory(ctx.db)), standingOf(row, ctx.viewer), decision);
}
