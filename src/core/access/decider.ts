import { type Decision, decide } from './decide.ts';
import type { Collection, Grant, Viewer } from './grant.ts';
import type { HouseRules } from './house-rules.ts';
import type { Rights } from './rights.ts';

/**
 * One viewer's decisions over many collections at one instant: the answers of `decide` itself, where most collections are shared
 * in one of a few ways. A main calendar of somebody else's with nothing but one standing grant is decided once for each audience and
 * object of rights met; everything else is decided as it comes.
 */
export function deciderFor(viewer: Viewer, now: number, house: HouseRules): (collection: Collection) => Decision {
  const known = new Map<Rights, Map<string, Decision>>();
  return (collection) => {
    const only = collection.grants.length === 1 ? (collection.grants[0] as Grant) : null;
    const plain =
      only !== null &&
      // A grant's key stands in the steps of its decision, so grants with a key are decided one by one.
      only.key === '' &&
      collection.kind === 'calendar' &&
      collection.main &&
      only.from === null &&
      only.until === null &&
      !collection.suspended &&
      !(viewer.kind === 'person' && viewer.id === collection.owner);
    if (!plain) return decide(collection, viewer, now, house);
    const { audience, rights } = only;
    const whom = audience.kind === 'everyone' ? '' : `${audience.kind} ${audience.id}`;
    const decided = known.get(rights)?.get(whom);
    if (decided) return decided;
    const decision = decide(collection, viewer, now, house);
    const byWhom = known.get(rights) ?? new Map<string, Decision>();
    byWhom.set(whom, decision);
    known.set(rights, byWhom);
    return decision;
  };
}
