import type { Scope, Sight } from '../calendar/index.ts';
import { higherScope, higherSight, SIGHT_RANK } from './ladder.ts';

/** Everything a decision answers: sight, reach (`add`, `change`, `remove`) and the six extras. */
export interface Rights {
  readonly sight: Sight;
  readonly add: boolean;
  readonly change: Scope;
  readonly remove: Scope;
  readonly suggest: boolean;
  readonly private: boolean;
  readonly speaks: boolean;
  readonly copies: boolean;
  readonly shares: boolean;
  /** Sets the owner's away notice. */
  readonly absence: boolean;
}

export const EXTRAS = ['suggest', 'private', 'speaks', 'copies', 'shares', 'absence'] as const;
export type Extra = (typeof EXTRAS)[number];

export const NO_RIGHTS: Rights = {
  sight: 'nothing',
  add: false,
  change: 'none',
  remove: 'none',
  suggest: false,
  private: false,
  speaks: false,
  copies: false,
  shares: false,
  absence: false,
};

/** The owner's rights: everything, save that there is nobody to put a change forward to. */
export const OWNER_RIGHTS: Rights = {
  sight: 'full',
  add: true,
  change: 'all',
  remove: 'all',
  suggest: false,
  private: true,
  speaks: true,
  copies: true,
  shares: true,
  absence: true,
};

/** The highest of each right of two sets. */
export function join(a: Rights, b: Rights): Rights {
  return {
    sight: higherSight(a.sight, b.sight),
    add: a.add || b.add,
    change: higherScope(a.change, b.change),
    remove: higherScope(a.remove, b.remove),
    suggest: a.suggest || b.suggest,
    private: a.private || b.private,
    speaks: a.speaks || b.speaks,
    copies: a.copies || b.copies,
    shares: a.shares || b.shares,
    absence: a.absence || b.absence,
  };
}

/** What can be given on one collection. */
export interface Offered {
  /** The sights that are offered; any other acts as `nothing`. */
  readonly sights: readonly Sight[];
  /** The extras that mean nothing here: never given, and in nobody's decision but the owner's. */
  readonly without: readonly Extra[];
}

/** Why rights don't stand together: which one, and what would have to be raised first, or that it means nothing on this collection. */
export interface Misfit {
  readonly right: keyof Rights;
  readonly needs: 'sight' | 'fullSight' | 'add' | 'arrangeAll' | 'otherKind';
}

/**
 * Lowers what the collection doesn't offer, and what doesn't stand together, in the order of step 8 of the rule: nothing at
 * sight `nothing`; below `full` no more than `own` and no insight into what is private, no acting, no copies; acting needs
 * adding; giving access needs changing and removing all. Idempotent; also says each thing it lowered, and why.
 */
export function fitRights(
  rights: Rights,
  offered: Offered,
): { readonly rights: Rights; readonly lowered: readonly Misfit[] } {
  const lowered: Misfit[] = [];
  const r = { ...rights };
  const off = (right: Exclude<keyof Rights, 'sight' | 'change' | 'remove'>, needs: Misfit['needs']) => {
    if (r[right]) {
      r[right] = false;
      lowered.push({ right, needs });
    }
  };
  const cut = (right: 'change' | 'remove', to: Scope, needs: Misfit['needs']) => {
    if (to === 'none' ? r[right] !== 'none' : r[right] === 'all') {
      r[right] = to;
      lowered.push({ right, needs });
    }
  };
  if (!offered.sights.includes(r.sight)) {
    r.sight = 'nothing';
    lowered.push({ right: 'sight', needs: 'otherKind' });
  }
  for (const extra of offered.without) off(extra, 'otherKind');
  if (r.sight === 'nothing') {
    off('add', 'sight');
    cut('change', 'none', 'sight');
    cut('remove', 'none', 'sight');
    for (const extra of EXTRAS) off(extra, 'sight');
  }
  if (SIGHT_RANK[r.sight] < SIGHT_RANK.full) {
    cut('change', 'own', 'fullSight');
    cut('remove', 'own', 'fullSight');
    off('private', 'fullSight');
    off('speaks', 'fullSight');
    off('copies', 'fullSight');
  }
  if (!r.add) off('speaks', 'add');
  if (r.change !== 'all' || r.remove !== 'all') off('shares', 'arrangeAll');
  return { rights: r, lowered };
}
