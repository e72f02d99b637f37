import type { Scope, Sight } from '../calendar/index.ts';

/** The organisation's ceilings, set by an administrator. */
export interface HouseRules {
  readonly everyoneSight: Sight;
  readonly outsideSight: Sight;
  readonly outsideReach: Scope;
  readonly outsideExtras: boolean;
  readonly linkSight: Sight;
}

/** The start: everyone inside may be shown all, outsiders and links no more than free/busy. */
export const STARTING_HOUSE_RULES: HouseRules = {
  everyoneSight: 'full',
  outsideSight: 'busy',
  outsideReach: 'none',
  outsideExtras: false,
  linkSight: 'busy',
};
