import type { Connection } from '../db/index.ts';

/** Somebody to be asked once one of the times is fixed. */
export interface HeldFor {
  readonly address: string;
  readonly name: string | null;
  readonly role: 'must' | 'may';
  readonly group: string | null;
}

/** Times held for one meeting, called by a letter within its calendar, and who will be asked to it. */
export interface HoldSet {
  readonly id: number;
  readonly key: string;
  readonly calendarId: number;
  readonly letter: string;
  readonly people: readonly HeldFor[];
}

interface Row {
  id: number;
  key: string;
  calendar_id: number;
  letter: string;
  people: string;
}

export function holdSetById(db: Connection, id: number): HoldSet | null {
  const row = db.get<Row>('SELECT id, key, calendar_id, letter, people FROM hold_set WHERE id = ?', id);
  if (!row) return null;
  const { calendar_id, people, ...rest } = row;
  return { ...rest, calendarId: calendar_id, people: JSON.parse(people) };
}

export function insertHoldSet(
  db: Connection,
  s: Omit<HoldSet, 'id'> & { readonly madeBy: number; readonly madeAt: number },
): number {
  return db.run(
    'INSERT INTO hold_set (key, calendar_id, letter, people, made_by, made_at) VALUES (?, ?, ?, ?, ?, ?)',
    s.key,
    s.calendarId,
    s.letter,
    JSON.stringify(s.people),
    s.madeBy,
    s.madeAt,
  );
}

/** The items of a set that are holds still, in order; all of its own calendar. Private ones may be left out. */
export const heldIn = (db: Connection, set: number, privateToo = true): number[] =>
  db
    .all<{ id: number }>(
      `SELECT i.id FROM item i JOIN hold_set s ON s.id = i.hold_set AND s.calendar_id = i.calendar_id
       WHERE i.hold_set = ? AND i.kind = 'hold' AND i.removed_at IS NULL AND (? OR i.visibility <> 'private')
       ORDER BY i.start, i.id`,
      set,
      privateToo ? 1 : 0,
    )
    .map(({ id }) => id);

/** The letters of a calendar's sets of which something is held still. */
export const lettersIn = (db: Connection, calendarId: number): string[] =>
  db
    .all<{ letter: string }>(
      `SELECT DISTINCT s.letter FROM hold_set s JOIN item i ON i.hold_set = s.id
       WHERE s.calendar_id = ? AND i.kind = 'hold' AND i.removed_at IS NULL`,
      calendarId,
    )
    .map(({ letter }) => letter);

/** Holds whose time to free themselves has come: at most `most`. */
export const lapsedHolds = (db: Connection, now: number, most: number): number[] =>
  db
    .all<{ id: number }>(
      `SELECT id FROM item WHERE lapses_at IS NOT NULL AND removed_at IS NULL AND lapses_at <= ? AND kind = 'hold' LIMIT ?`,
      now,
      most,
    )
    .map(({ id }) => id);

/** Held times that are offered behind an address. */
export interface Offer {
  readonly key: string;
  readonly holdSet: number;
  readonly words: string;
  readonly madeBy: number;
}

const OFFER = 'SELECT key, hold_set AS holdSet, words, made_by AS madeBy FROM offer WHERE withdrawn_at IS NULL AND';

export const offerByKey = (db: Connection, key: string): Offer | null => db.get<Offer>(`${OFFER} key = ?`, key) ?? null;

export const offerOfSet = (db: Connection, set: number): Offer | null =>
  db.get<Offer>(`${OFFER} hold_set = ?`, set) ?? null;

/** Offers a set, under another address than it may have had before. */
export function putOffer(db: Connection, offer: Offer & { readonly madeAt: number }): void {
  db.run('DELETE FROM offer WHERE hold_set = ?', offer.holdSet);
  db.run(
    'INSERT INTO offer (key, hold_set, words, made_by, made_at) VALUES (?, ?, ?, ?, ?)',
    offer.key,
    offer.holdSet,
    offer.words,
    offer.madeBy,
    offer.madeAt,
  );
}

export function withdrawOffer(db: Connection, set: number, at: number): void {
  db.run('UPDATE offer SET withdrawn_at = ? WHERE hold_set = ? AND withdrawn_at IS NULL', at, set);
}
