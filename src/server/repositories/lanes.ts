import type { Connection } from '../db/index.ts';
import { GROUPS_NOW } from './groups.ts';

/** A calendar that somebody keeps on their boards. */
export interface StoredLane {
  readonly key: string;
  readonly personId: number;
  readonly calendarId: number;
  readonly name: string | null;
  readonly colour: number | null;
  readonly place: number;
  readonly shown: boolean;
  readonly removed: boolean;
  readonly heading: 'run' | 'look';
}

interface Row {
  key: string;
  person_id: number;
  calendar_id: number;
  name: string | null;
  colour: number | null;
  place: number;
  shown: number;
  removed: number;
  heading: StoredLane['heading'];
}

const decode = (r: Row): StoredLane => ({
  key: r.key,
  personId: r.person_id,
  calendarId: r.calendar_id,
  name: r.name,
  colour: r.colour,
  place: r.place,
  shown: r.shown === 1,
  removed: r.removed === 1,
  heading: r.heading,
});

/** Somebody's lanes in their order, those they took out included. */
export const lanesOf = (db: Connection, personId: number): StoredLane[] =>
  db.all<Row>('SELECT * FROM kept_lane WHERE person_id = ? ORDER BY place, id LIMIT 1000', personId).map(decode);

/** Keeps a lane as it is said, new or in the place of the one there. */
export function saveLane(db: Connection, lane: StoredLane): void {
  db.run(
    `INSERT INTO kept_lane (key, person_id, calendar_id, name, colour, place, shown, removed, heading)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON CONFLICT (person_id, calendar_id) DO UPDATE SET name = excluded.name, colour = excluded.colour,
       place = excluded.place, shown = excluded.shown, removed = excluded.removed, heading = excluded.heading`,
    lane.key,
    lane.personId,
    lane.calendarId,
    lane.name,
    lane.colour,
    lane.place,
    Number(lane.shown),
    Number(lane.removed),
    lane.heading,
  );
}

/** The calendars somebody works with: their own, those that are given to them or to a group of theirs by name, and those they keep. */
export function calendarsOnLanesOf(db: Connection, personId: number, most: number): number[] {
  // Each part by its own index; what stands in two of them is one here, which costs less than having it sorted.
  const rows = db.arrays<[number]>(
    `SELECT id FROM collection WHERE owner_id = @personId
     UNION ALL SELECT collection_id FROM access_grant WHERE recorded_until IS NULL AND person_id = @personId
     UNION ALL SELECT collection_id FROM access_grant WHERE recorded_until IS NULL AND group_id IN (${GROUPS_NOW})
     UNION ALL SELECT calendar_id FROM kept_lane WHERE person_id = @personId`,
    { personId },
  );
  return [...new Set(rows.map(([id]) => id))].slice(0, most);
}
