import { itemsByUid } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { type ActedFor, type Context, viewFor } from '../deciding/index.ts';

/** The same meeting asked of somebody else one answers for. */
export interface Twin {
  readonly one: ActedFor;
  readonly item: StoredItem;
  readonly cause: string;
}

/** The invitations to a meeting that wait for an answer of others than one, as far as the viewer sees them in full and may answer. */
export function twinsOf(ctx: Context, all: readonly ActedFor[], uid: string, but: string): Twin[] {
  return all.flatMap((one) => {
    const { person, decided } = one;
    if (person.handle === but) return [];
    const item = itemsByUid(ctx.db, decided.calendar.id, uid).find(
      (i) => i.ownerInvited && i.ownerAnswer === 'needs-action' && !i.cancelled && (i.rule !== null || i.end > ctx.now),
    );
    const view = item && viewFor(ctx, decided, item);
    return item && view && 'notes' in view && view.mayAnswer
      ? [{ one, item, cause: `${person.handle}/answer:${item.key}` }]
      : [];
  });
}
