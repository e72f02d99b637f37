import type { StoredItem } from '../../../repositories/stored-item.ts';

/** One item before and after a write. */
export interface ItemChange {
  readonly before: StoredItem | null;
  readonly after: StoredItem;
}

/** What a write changed, in the order it was written, and the key of its trail row, by which it is undone. */
export interface Written {
  readonly changes: readonly ItemChange[];
  readonly undo: string;
}
