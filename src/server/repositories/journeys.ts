import type { Connection } from '../db/index.ts';

/** A journey between two places, either way, in minutes. */
export type JourneyRow = readonly [a: string, b: string, minutes: number];

const MOST_JOURNEYS = 2000;

/** Every journey, by the names of its places. */
export const allJourneys = (db: Connection): JourneyRow[] =>
  db.arrays('SELECT a_name, b_name, minutes FROM journey ORDER BY a_name, b_name LIMIT ?', MOST_JOURNEYS);

/** Puts a table of journeys in the place of the one there. */
export function saveJourneys(db: Connection, journeys: readonly JourneyRow[]): void {
  db.run('DELETE FROM journey');
  for (const [x, y, minutes] of journeys) {
    const key = (text: string) => text.trim().toLowerCase();
    const [a, b] = key(x) < key(y) ? [x, y] : [y, x];
    db.run(
      'INSERT OR REPLACE INTO journey (a, b, a_name, b_name, minutes) VALUES (?, ?, ?, ?, ?)',
      key(a),
      key(b),
      a.trim(),
      b.trim(),
      minutes,
    );
  }
}
