import type { SearchedField } from '@/core/calendar/index.ts';
import type { Connection } from '../db/index.ts';

/** An item that may be meant by some words: where it is, and when it begins first. */
export interface Candidate {
  readonly id: number;
  readonly calendarId: number;
  readonly start: number;
}

/** The texts of an item that words may stand in. */
export type TextColumn = SearchedField | 'people';

/** Items that may be meant: of some calendars or of all, of some visibilities or of all, that name an address or were made by somebody. */
export interface TextsOf {
  readonly columns: readonly TextColumn[];
  readonly calendars: readonly number[] | null;
  readonly visibilities?: readonly string[];
  readonly named?: string;
  readonly createdBy?: number;
}

/**
 * Items whose texts hold all of some words, each as the beginning of one of theirs; the nearest to an instant first, at most `most`. Which
 * items and texts are looked through is said by the caller, so that what nobody is shown takes none of the room; whether each may be seen is
 * theirs to decide as well.
 */
export function candidatesFor(
  db: Connection,
  words: readonly string[],
  within: readonly TextsOf[],
  near: number,
  most: number,
): Candidate[] {
  if (within.length === 0) return [];
  const quoted = words.map((word) => `"${word.replace(/"/g, '')}"*`).join(' AND ');
  const args: (string | number)[] = [];
  const parts = within.map(({ columns, calendars, visibilities, named, createdBy }) => {
    const match = [`{${columns.join(' ')}} : (${quoted})`];
    if (calendars) match.push(`cal : (${calendars.map((id) => `"c${id}"`).join(' OR ')})`);
    if (named !== undefined) match.push(`people : "${named.replace(/"/g, ' ')}"`);
    args.push(match.join(' AND '));
    let rest = '';
    if (visibilities) {
      rest += ` AND i.visibility IN (${visibilities.map(() => '?').join(', ')})`;
      args.push(...visibilities);
    }
    if (createdBy !== undefined) {
      rest += ' AND i.created_by = ?';
      args.push(createdBy);
    }
    return `SELECT i.id, i.calendar_id, i.start FROM item_text t JOIN item i ON i.id = t.rowid
       WHERE item_text MATCH ? AND i.removed_at IS NULL${rest}`;
  });
  return db
    .arrays<[number, number, number]>(
      `SELECT id, calendar_id, start FROM (${parts.join(' UNION ')}) ORDER BY abs(start - ?) LIMIT ?`,
      ...args,
      near,
      most,
    )
    .map(([id, calendarId, start]) => ({ id, calendarId, start }));
}
