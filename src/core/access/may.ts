import type { Decision } from './decide.ts';
import { type ItemFacts, type Standing, seenAs, seenBeforeStatus } from './see.ts';

/** What a viewer may do with a collection as a whole. */
export interface MayCollection {
  readonly add: boolean;
  readonly suggest: boolean;
  readonly share: boolean;
  readonly deleteCollection: boolean;
}

/** What a viewer may do with one item. */
export interface MayItem {
  readonly change: boolean;
  readonly remove: boolean;
  readonly suggest: boolean;
  readonly answer: boolean;
}

export function may(decision: Decision): MayCollection {
  const { rights, owner } = decision;
  return {
    add: rights.add,
    suggest: rights.suggest && !rights.add,
    share: owner || rights.shares,
    deleteCollection: owner,
  };
}

/** What a viewer may do with an item, whether they see it or not. */
export function mayItem(item: ItemFacts, standing: Standing, decision: Decision): MayItem {
  const { rights, owner } = decision;
  const before = seenBeforeStatus(item, standing, decision).seen;
  const seen = seenAs(item, standing, decision);
  const visible = seen !== null && seen !== 'withheld';
  const own = standing.created && !item.cancelled;
  const change = (rights.change === 'all' && before !== 'withheld') || (rights.change === 'own' && own);
  const remove = (rights.remove === 'all' || (rights.remove === 'own' && own)) && visible;
  return {
    change,
    remove,
    suggest: rights.suggest && !change && visible && seen !== 'busy',
    answer:
      decision.kind === 'calendar' && standing.ownerInvited && !item.cancelled && (owner || (rights.speaks && visible)),
  };
}
