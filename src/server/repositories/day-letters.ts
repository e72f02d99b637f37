import type { Connection } from '../db/index.ts';

/** When somebody is sent the letters of the day: minutes of their own day, `null` for not at all; and the dates they last were. */
export interface DayLetterWish {
  readonly personId: number;
  readonly morning: number | null;
  readonly evening: number | null;
  readonly lastMorning: string;
  readonly lastEvening: string;
}

const COLUMNS = `person_id AS personId, morning, evening, last_morning AS lastMorning, last_evening AS lastEvening`;

export const dayLetterOf = (db: Connection, personId: number): DayLetterWish =>
  db.get<DayLetterWish>(`SELECT ${COLUMNS} FROM day_letter WHERE person_id = ?`, personId) ?? {
    personId,
    morning: null,
    evening: null,
    lastMorning: '',
    lastEvening: '',
  };

/** Those who are sent any, after a row number: at most `most`. */
export const dayLetters = (db: Connection, after: number, most: number): DayLetterWish[] =>
  db.all<DayLetterWish>(
    `SELECT ${COLUMNS} FROM day_letter WHERE person_id > ? AND (morning IS NOT NULL OR evening IS NOT NULL) ORDER BY person_id LIMIT ?`,
    after,
    most,
  );

export function putDayLetter(db: Connection, w: DayLetterWish): void {
  db.run(
    `INSERT INTO day_letter (person_id, morning, evening, last_morning, last_evening) VALUES (?, ?, ?, ?, ?)
     ON CONFLICT (person_id) DO UPDATE SET morning = excluded.morning, evening = excluded.evening,
       last_morning = excluded.last_morning, last_evening = excluded.last_evening`,
    w.personId,
    w.morning,
    w.evening,
    w.lastMorning,
    w.lastEvening,
  );
}
