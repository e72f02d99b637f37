import type { Sight } from '../calendar/index.ts';
import type { CollectionKind } from '../collection/index.ts';
import { type Audience, type Collection, type Grant, isActive, type Viewer } from './grant.ts';
import type { HouseRules } from './house-rules.ts';
import { offeredOn } from './kinds.ts';
import { lowerScope, lowerSight } from './ladder.ts';
import { fitRights, join, type Misfit, NO_RIGHTS, OWNER_RIGHTS, type Rights } from './rights.ts';

/** One step of the way to a decision, naming the grant or the rule that decided. */
export type Step =
  | { readonly step: 'owner' }
  | { readonly step: 'suspended' }
  | { readonly step: 'person' | 'group' | 'everyone' | 'link'; readonly grants: readonly string[] }
  | { readonly step: 'none' }
  | { readonly step: 'ceiling'; readonly rule: keyof HouseRules; readonly from: string; readonly to: string }
  | { readonly step: 'fit'; readonly lowered: readonly Misfit[] };

/** A decision: what a viewer may see and do in one collection, why, and the ceiling that `open` items meet. */
export interface Decision {
  readonly kind: CollectionKind;
  readonly rights: Rights;
  readonly owner: boolean;
  readonly ceiling: Sight;
  readonly because: readonly Step[];
}

const NOBODY: Pick<Decision, 'rights' | 'owner' | 'ceiling'> = { rights: NO_RIGHTS, owner: false, ceiling: 'nothing' };

/**
 * Decides what a viewer may see and do in a collection at an instant (epoch milliseconds), by the rule's eight steps.
 * Pure; never throws. Cost: one pass over the collection's grants.
 */
export function decide(collection: Collection, viewer: Viewer, now: number, house: HouseRules): Decision {
  const { kind } = collection;
  if (viewer.kind === 'person' && viewer.id === collection.owner)
    return { kind, rights: OWNER_RIGHTS, owner: true, ceiling: 'full', because: [{ step: 'owner' }] };
  if (collection.suspended) return { kind, ...NOBODY, because: [{ step: 'suspended' }] };

  const deciding = decidingGrants(collection.grants, viewer, now);
  if (!deciding) return { kind, ...NOBODY, because: [{ step: 'none' }] };
  const because: Step[] = [{ step: deciding.step, grants: deciding.grants.map((g) => g.key) }];
  const raised = deciding.grants.map((grant) => grant.rights).reduce(join);
  const ceilinged = cutToCeilings(raised, deciding.step, viewer, house, because);
  const offered = offeredOn(collection);
  const fitted = fitRights(ceilinged.rights, offered);
  if (fitted.lowered.length > 0) because.push({ step: 'fit', lowered: fitted.lowered });
  const ceiling = offered.sights.includes(ceilinged.ceiling) ? ceilinged.ceiling : 'nothing';
  return { kind, rights: fitted.rights, owner: false, ceiling, because };
}

interface Deciding {
  readonly step: 'person' | 'group' | 'everyone' | 'link';
  readonly grants: readonly Grant[];
}

const STEPS = ['everyone', 'group', 'person', 'link'] as const;

/** The place in `STEPS` at which an audience speaks to a viewer; -1 where it doesn't. */
function stepFor(a: Audience, viewer: Viewer): number {
  if (viewer.kind === 'link') return a.kind === 'link' && a.id === viewer.id ? 3 : -1;
  switch (a.kind) {
    case 'everyone':
      return viewer.inside ? 0 : -1;
    case 'group':
      return viewer.groups.has(a.id) ? 1 : -1;
    case 'person':
      return a.id === viewer.id ? 2 : -1;
    case 'link':
      return -1;
    default:
      return a satisfies never;
  }
}

function decidingGrants(grants: readonly Grant[], viewer: Viewer, now: number): Deciding | null {
  let highest = -1;
  let found: Grant[] = [];
  for (const grant of grants) {
    const step = stepFor(grant.audience, viewer);
    if (step < 0 || step < highest || !isActive(grant, now)) continue;
    if (step > highest) {
      highest = step;
      found = [grant];
    } else found.push(grant);
  }
  const step = STEPS[highest];
  return step ? { step, grants: found } : null;
}

function cutToCeilings(
  raised: Rights,
  step: Deciding['step'],
  viewer: Viewer,
  house: HouseRules,
  because: Step[],
): { rights: Rights; ceiling: Sight } {
  const r = { ...raised };
  let ceiling: Sight = 'full';
  const cutSight = (rule: 'everyoneSight' | 'outsideSight' | 'linkSight') => {
    ceiling = house[rule];
    const to = lowerSight(r.sight, ceiling);
    if (to !== r.sight) because.push({ step: 'ceiling', rule, from: r.sight, to });
    r.sight = to;
  };
  if (viewer.kind === 'link') {
    cutSight('linkSight');
    return { rights: { ...NO_RIGHTS, sight: r.sight }, ceiling };
  }
  if (step === 'everyone') cutSight('everyoneSight');
  if (!viewer.inside) {
    cutSight('outsideSight');
    for (const right of ['change', 'remove'] as const) {
      const to = lowerScope(r[right], house.outsideReach);
      if (to !== r[right]) because.push({ step: 'ceiling', rule: 'outsideReach', from: `${right} ${r[right]}`, to });
      r[right] = to;
    }
    if (house.outsideReach === 'none' && r.add) {
      because.push({ step: 'ceiling', rule: 'outsideReach', from: 'add', to: 'none' });
      r.add = false;
    }
    if (!house.outsideExtras)
      for (const extra of ['private', 'speaks', 'copies', 'shares', 'absence'] as const) {
        if (r[extra]) because.push({ step: 'ceiling', rule: 'outsideExtras', from: extra, to: 'none' });
        r[extra] = false;
      }
  }
  return { rights: r, ceiling };
}

/** The next instant after `now` at which a grant in force or to come could change this viewer's answer; `null` for never. */
export function nextChange(collection: Collection, viewer: Viewer, now: number): number | null {
  let next: number | null = null;
  for (const grant of collection.grants) {
    if (stepFor(grant.audience, viewer) < 0) continue;
    for (const edge of [grant.from, grant.until])
      if (edge !== null && edge > now && (next === null || edge < next)) next = edge;
  }
  return next;
}
