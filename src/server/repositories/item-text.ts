import type { Connection } from '../db/index.ts';

/** An item that may be meant by some words: where it is, and when it begins first. */
export interface Candidate {
  readonly id: number;
  readonly calendarId: number;
  readonly start: number;
}

/**
 * Items whose texts hold all of some words, each as the beginning of one of theirs; of some calendars, or of all; the nearest to an instant
 * first, at most `most`. Which of the texts may be seen is for the caller to decide.
 */
export function candidatesFor(
  db: Connection,
  words: readonly string[],
  calendars: readonly number[] | null,
  near: number,
  most: number,
): Candidate[] {
  const quoted = words.map((word) => `"${word.replace(/"/g, '')}"*`).join(' AND ');
  const texts = `{title place notes people categories link briefing} : (${quoted})`;
  const within = calendars === null ? '' : ` AND cal : (${calendars.map((id) => `"c${id}"`).join(' OR ')})`;
  return db
    .arrays<[number, number, number]>(
      `SELECT i.id, i.calendar_id, i.start FROM item_text t JOIN item i ON i.id = t.rowid
       WHERE item_text MATCH ? AND i.removed_at IS NULL ORDER BY abs(i.start - ?) LIMIT ?`,
      `${texts}${within}`,
      near,
      most,
    )
    .map(([id, calendarId, start]) => ({ id, calendarId, start }));
}
