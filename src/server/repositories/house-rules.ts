import type { HouseRules } from '@/core/access/index.ts';
import type { Connection } from '../db/index.ts';

/** The house rules in force; `null` where none was ever set. */
export function houseRules(db: Connection): HouseRules | null {
  const row = db.get<{
    everyone_sight: HouseRules['everyoneSight'];
    outside_sight: HouseRules['outsideSight'];
    outside_reach: HouseRules['outsideReach'];
    outside_extras: 0 | 1;
    link_sight: HouseRules['linkSight'];
  }>('SELECT * FROM house_rules WHERE recorded_until IS NULL ORDER BY id DESC LIMIT 1');
  if (!row) return null;
  return {
    everyoneSight: row.everyone_sight,
    outsideSight: row.outside_sight,
    outsideReach: row.outside_reach,
    outsideExtras: row.outside_extras === 1,
    linkSight: row.link_sight,
  };
}
