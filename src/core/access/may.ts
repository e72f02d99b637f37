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

/** What somebody who runs a calendar may do in it, beyond what may be done with one item. */
export interface MayRun {
  /** Says things in the owner's name. */
  readonly speak: boolean;
  /** Changes every item there is. */
  readonly arrange: boolean;
  /** Both: all that is held of an item is theirs to read and to take along, the briefing too. */
  readonly whole: boolean;
  /** Runs it in one way or the other, and so reads what happened and is reminded. */
  readonly run: boolean;
  readonly seePrivate: boolean;
  /** May bring back something that was removed. */
  readonly bringBack: boolean;
  /** Sets the away notice. */
  readonly absence: boolean;
}

export function mayRun({ owner, rights }: Decision): MayRun {
  const speak = owner || rights.speaks;
  const arrange = owner || rights.change === 'all';
  return {
    speak,
    arrange,
    whole: speak && arrange,
    run: speak || arrange,
    seePrivate: owner || rights.private,
    bringBack: owner || rights.change !== 'none' || rights.remove !== 'none',
    absence: owner || rights.absence,
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
