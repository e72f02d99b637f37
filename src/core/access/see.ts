import type { Item, Sight, Status, Visibility } from '../calendar/index.ts';
import type { Decision } from './decide.ts';
import { collectionKinds } from './kinds.ts';
import { lowerSight } from './ladder.ts';

/** How an item is seen: a sight, `withheld`, or `briefed` (full, with the briefing). */
export type SeenAs = Exclude<Sight, 'nothing'> | 'withheld' | 'briefed';

/** How a viewer stands to one item; worked out by whoever knows the people on it. */
export interface Standing {
  /** The viewer is its organiser or one of its attendees. */
  readonly named: boolean;
  /** The viewer created it. */
  readonly created: boolean;
  /** The owner is among its attendees and isn't its organiser. */
  readonly ownerInvited: boolean;
}

export type ItemFacts = Pick<Item, 'shows' | 'visibility' | 'cancelled' | 'ownerAnswer'>;

/** Why an item is seen the way it is; the last step of an explanation. */
export type ItemStep =
  | 'noSight'
  | 'cancelled'
  | 'owner'
  | 'party'
  | 'follow'
  | 'open'
  | 'outline'
  | 'outlineArranges'
  | 'privateLetIn'
  | 'privateWithheld';

/** The status others are shown: a declined item is free, an unanswered one at most tentative, otherwise as it is set. */
export function effectiveStatus(item: Pick<Item, 'shows' | 'ownerAnswer'>): Status {
  const { ownerAnswer, shows } = item;
  if (ownerAnswer === 'accepted' || ownerAnswer === null || ownerAnswer === undefined) return shows;
  if (ownerAnswer === 'declined') return 'free';
  return shows === 'busy' ? 'tentative' : shows;
}

/** The way an item is seen before status can leave it out (steps 1 to 4 of the item's rule), and the step that decided. */
export function seenBeforeStatus(
  item: ItemFacts,
  standing: Standing,
  decision: Decision,
): { readonly seen: SeenAs | null; readonly step: ItemStep } {
  const { rights } = decision;
  if (rights.sight === 'nothing') return { seen: null, step: 'noSight' };
  if (item.cancelled && !decision.owner && rights.change !== 'all') return { seen: null, step: 'cancelled' };
  if (decision.owner) return { seen: decision.kind === 'calendar' ? 'briefed' : 'full', step: 'owner' };
  if ((standing.named && collectionKinds[decision.kind].parties) || (standing.created && rights.change !== 'none'))
    return { seen: brief('full', decision), step: 'party' };
  return byVisibility(item.visibility, rights.sight, decision);
}

function byVisibility(visibility: Visibility, sight: Exclude<Sight, 'nothing'>, decision: Decision) {
  const { rights } = decision;
  const as = (given: Sight, step: ItemStep) => ({ seen: given === 'nothing' ? null : brief(given, decision), step });
  switch (visibility) {
    case 'follow':
      return as(sight, 'follow');
    case 'open':
      return as(decision.ceiling, 'open');
    case 'outline':
      return rights.change === 'all' ? as('full', 'outlineArranges') : as(lowerSight(sight, 'outline'), 'outline');
    case 'private':
      return rights.private
        ? as(sight, 'privateLetIn')
        : { seen: 'withheld' as const, step: 'privateWithheld' as const };
    default:
      return visibility satisfies never;
  }
}

function brief(sight: Exclude<Sight, 'nothing'>, decision: Decision): SeenAs {
  const { kind, rights } = decision;
  return sight === 'full' && kind === 'calendar' && rights.change === 'all' && rights.speaks ? 'briefed' : sight;
}

/** How a viewer sees an item, or `null` where it is left out. */
export function seenAs(item: ItemFacts, standing: Standing, decision: Decision): SeenAs | null {
  const { seen } = seenBeforeStatus(item, standing, decision);
  if (seen === 'withheld' && collectionKinds[decision.kind].hides === 'omitted') return null;
  if (decision.kind !== 'calendar') return seen;
  if ((seen === 'busy' || seen === 'withheld') && effectiveStatus(item) === 'free') return null;
  return seen;
}
