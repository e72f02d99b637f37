import { type Decision, decide, type Step } from './decide.ts';
import type { Collection, Viewer } from './grant.ts';
import type { HouseRules } from './house-rules.ts';
import {
  effectiveStatus,
  type ItemFacts,
  type ItemStep,
  type SeenAs,
  type Standing,
  seenAs,
  seenBeforeStatus,
} from './see.ts';

/** The way to an answer about one item: the decision's steps, the item's step, and whether its status left it out. */
export interface Explanation {
  readonly decision: Decision;
  readonly steps: readonly Step[];
  readonly itemStep: ItemStep;
  readonly freeOmitted: boolean;
  readonly seen: SeenAs | null;
}

/** Explains, as data, how a viewer sees an item at an instant, in the order in which the rule decides. */
export function explain(
  collection: Collection,
  viewer: Viewer,
  now: number,
  house: HouseRules,
  item: ItemFacts,
  standing: Standing,
): Explanation {
  const decision = decide(collection, viewer, now, house);
  const before = seenBeforeStatus(item, standing, decision);
  const seen = seenAs(item, standing, decision);
  return {
    decision,
    steps: decision.because,
    itemStep: before.step,
    freeOmitted: before.seen !== null && seen === null && effectiveStatus(item) === 'free',
    seen,
  };
}
