import type { HouseRules } from '@/core/access/index.ts';
import type { Connection } from '../db/index.ts';

interface Row {
  everyone_sight: HouseRules['everyoneSight'];
  outside_sight: HouseRules['outsideSight'];
  outside_reach: HouseRules['outsideReach'];
  outside_extras: 0 | 1;
  link_sight: HouseRules['linkSight'];
}

const decode = (row: Row | undefined): HouseRules | null =>
  row
    ? {
        everyoneSight: row.everyone_sight,
        outsideSight: row.outside_sight,
        outsideReach: row.outside_reach,
        outsideExtras: row.outside_extras === 1,
        linkSight: row.link_sight,
      }
    : null;

/** The house rules in force; `null` where none was ever set. */
export function houseRules(db: Connection): HouseRules | null {
  return decode(db.get<Row>('SELECT * FROM house_rules WHERE recorded_until IS NULL ORDER BY id DESC LIMIT 1'));
}

/** The house rules in force at an instant; `null` where none was set by then. */
export function houseRulesAt(db: Connection, at: number): HouseRules | null {
  return decode(
    db.get<Row>(
      `SELECT * FROM house_rules WHERE recorded_from <= ? AND (recorded_until IS NULL OR recorded_until > ?)
       ORDER BY id DESC LIMIT 1`,
      at,
      at,
    ),
  );
}

/** Records house rules as a dated fact; the ones before end at the same instant. */
export function recordHouseRules(db: Connection, rules: HouseRules, at: number, by: number): void {
  db.run('UPDATE house_rules SET recorded_until = ? WHERE recorded_until IS NULL', at);
  db.run(
    `INSERT INTO house_rules (everyone_sight, outside_sight, outside_reach, outside_extras, link_sight, recorded_from,
       recorded_by) VALUES (?, ?, ?, ?, ?, ?, ?)`,
    rules.everyoneSight,
    rules.outsideSight,
    rules.outsideReach,
    Number(rules.outsideExtras),
    rules.linkSight,
    at,
    by,
  );
}
