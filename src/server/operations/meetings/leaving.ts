import { type Invited, sameAddress } from '@/core/meetings/index.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import type { OrganiserMeeting } from '../../repositories/meetings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { type Refusal, refuse } from '../../result.ts';
import { type Context, decideOn, storedRules, viewFor } from '../deciding/index.ts';
import { insideBy, outsideOf } from './invited.ts';

/**
 * Notes who outside is going to hear of a meeting that nobody outside has heard of yet. `before` are those it was already to leave for: whoever
 * let it go was shown their names. Names are noted for whoever sees the item in full alone.
 */
export function noteLeaving(
  ctx: Context,
  calendar: Calendar,
  item: StoredItem,
  called: Pick<OrganiserMeeting, 'state' | 'wanted'>,
  { to, before }: { readonly to: readonly string[]; readonly before: readonly Invited[] | null },
): void {
  const { leaving, db } = ctx;
  if (!leaving || !storedRules(db).warnOutside) return;
  const { state } = called;
  const heard = [...(state && state.state !== 'draft' ? state.invited : []), ...(before ?? [])];
  if (heard.some(({ address }) => insideBy(db, address) === null)) return;
  const view = viewFor(ctx, decideOn(ctx, calendar), item);
  if (!view || !('notes' in view)) return;
  const people = called.wanted ?? state?.invited ?? [];
  for (const address of outsideOf(db, to))
    leaving.set(address, people.find((one) => sameAddress(one.address, address))?.name || address);
}

/** What a write came to; where a meeting leaves the house by it and whoever asked wants to know first, a refusal that names whom it goes to. */
export function unlessItLeaves<T extends { readonly ok: boolean }>(ctx: Context, done: T): T | Refusal {
  if (!done.ok || !ctx.leaving?.size) return done;
  const people = [...ctx.leaving.values()];
  return refuse('leavesHouse', { facts: { people: people.join(', ') }, data: { people } });
}
