import type { Decision } from '@/core/access/index.ts';
import { mustWait } from '../../../db/gate.ts';
import { recordUse } from '../../../repositories/grant-use.ts';
import type { Context } from '../context/context.ts';

const ONCE_IN = 3_600_000;
const MOST = 100_000;
const holder = globalThis as { paramoUses?: Map<string, number> };

/** Remembers that a grant let somebody read, once an hour at most: findings and the list say when it was last used. */
export function noteUse(ctx: Context, decision: Decision): void {
  const first = decision.because[0];
  if (!first || !('grants' in first) || decision.rights.sight === 'nothing') return;
  holder.paramoUses ??= new Map();
  const uses = holder.paramoUses;
  const key = `${ctx.viewer.id} ${first.grants.join(' ')}`;
  const before = uses.get(key);
  if (before !== undefined && ctx.now - before < ONCE_IN && ctx.now >= before) return;
  // What can't be noted now is noted at the next reading.
  if (mustWait()) return;
  if (uses.size > MOST) uses.clear();
  uses.set(key, ctx.now);
  ctx.db.write(() => recordUse(ctx.db, first.grants, ctx.viewer.id, ctx.now));
}
