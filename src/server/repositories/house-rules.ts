import type { HouseRules } from '@/core/access/index.ts';
import type { Sight } from '@/core/calendar/index.ts';
import type { Connection } from '../db/index.ts';

/** Who may make links: those who give access to a calendar, administrators alone, or nobody. */
type LinksBy = 'sharers' | 'administrators' | 'nobody';

/** The organisation's rules as they are kept: `further` holds the ceilings of further calendars, `null` where they are the same. */
export interface StoredHouseRules {
  readonly main: HouseRules;
  readonly further: HouseRules | null;
  /** What everyone inside gets of a calendar that is new. */
  readonly startSight: Sight;
  readonly linksBy: LinksBy;
  /** That those outside are named once before a meeting first leaves the house. */
  readonly warnOutside: boolean;
  /** That a meeting which others are asked to gets an address to join it at by itself. */
  readonly meetingLinks: boolean;
}

interface Row {
  everyone_sight: Sight;
  outside_sight: Sight;
  outside_reach: HouseRules['outsideReach'];
  outside_extras: 0 | 1;
  link_sight: Sight;
  further_everyone_sight: Sight | null;
  further_outside_sight: Sight | null;
  further_outside_reach: HouseRules['outsideReach'] | null;
  further_outside_extras: 0 | 1 | null;
  further_link_sight: Sight | null;
  start_sight: Sight;
  links_by: LinksBy;
  warn_outside: 0 | 1;
  meeting_links: 0 | 1;
}

function decode(row: Row | undefined): StoredHouseRules | null {
  if (!row) return null;
  const main: HouseRules = {
    everyoneSight: row.everyone_sight,
    outsideSight: row.outside_sight,
    outsideReach: row.outside_reach,
    outsideExtras: row.outside_extras === 1,
    linkSight: row.link_sight,
  };
  const further: HouseRules | null =
    row.further_everyone_sight === null
      ? null
      : {
          everyoneSight: row.further_everyone_sight,
          outsideSight: row.further_outside_sight ?? main.outsideSight,
          outsideReach: row.further_outside_reach ?? main.outsideReach,
          outsideExtras: row.further_outside_extras === 1,
          linkSight: row.further_link_sight ?? main.linkSight,
        };
  return {
    main,
    further,
    startSight: row.start_sight,
    linksBy: row.links_by,
    warnOutside: row.warn_outside === 1,
    meetingLinks: row.meeting_links === 1,
  };
}

/** The house rules in force; `null` where none was ever set. */
export function houseRules(db: Connection): StoredHouseRules | null {
  return decode(db.get<Row>('SELECT * FROM house_rules WHERE recorded_until IS NULL ORDER BY id DESC LIMIT 1'));
}

/** The house rules in force at an instant; `null` where none was set by then. */
export function houseRulesAt(db: Connection, at: number): StoredHouseRules | null {
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
export function recordHouseRules(db: Connection, rules: StoredHouseRules, at: number, by: number): void {
  const { main, further } = rules;
  db.run('UPDATE house_rules SET recorded_until = ? WHERE recorded_until IS NULL', at);
  db.run(
    `INSERT INTO house_rules (everyone_sight, outside_sight, outside_reach, outside_extras, link_sight,
       further_everyone_sight, further_outside_sight, further_outside_reach, further_outside_extras, further_link_sight,
       start_sight, links_by, warn_outside, meeting_links, recorded_from, recorded_by)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    main.everyoneSight,
    main.outsideSight,
    main.outsideReach,
    Number(main.outsideExtras),
    main.linkSight,
    further?.everyoneSight ?? null,
    further?.outsideSight ?? null,
    further?.outsideReach ?? null,
    further && Number(further.outsideExtras),
    further?.linkSight ?? null,
    rules.startSight,
    rules.linksBy,
    Number(rules.warnOutside),
    Number(rules.meetingLinks),
    at,
    by,
  );
}
