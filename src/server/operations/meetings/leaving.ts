import { type Invited, sameAddress } from '@/core/meetings/index.ts';
import type { Called } from '../../repositories/meetings.ts';
import { type Refusal, refuse } from '../../result.ts';
import { type Context, storedRules } from '../deciding/index.ts';
import { outsideOf } from './invited.ts';

/**
 * Notes who outside is going to hear of a meeting that nobody outside has heard of yet. `before` are those it was waiting to be said to
 * already: whoever let that go has seen their names.
 */
export function noteLeaving(
  ctx: Context,
  called: Pick<Called, 'state' | 'wanted'>,
  { to, before }: { readonly to: readonly string[]; readonly before: readonly Invited[] | null },
): void {
  const { leaving, db } = ctx;
  if (!leaving || !storedRules(db).warnOutside) return;
  const { state } = called;
  const heard = [...(state && state.state !== 'draft' ? state.invited : []), ...(before ?? [])];
  if (
    outsideOf(
      db,
      heard.map((one) => one.address),
    ).length > 0
  )
    return;
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
