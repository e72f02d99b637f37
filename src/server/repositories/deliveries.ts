import type { ReadMessage } from '@/core/formats/index.ts';
import type { Message } from '@/core/meetings/index.ts';
import type { Connection } from '../db/index.ts';
import type { MessageFacts } from './message-row.ts';

/** How a scheduling message came in from outside: what its mail said of itself, and whether its sender is vouched for. */
export interface Arriving {
  readonly checked: boolean;
  readonly messageId: string | null;
  readonly inReplyTo: string | null;
  readonly refs: readonly string[];
  readonly fromName: string | null;
  readonly body: string;
  readonly files: MessageFacts['files'];
}

/**
 * A scheduling message on its way into somebody's calendar. `actorId` is who said it, `at` when. From outside it has the mail it came by, and
 * names an occurrence on its own clock.
 */
export interface Delivery {
  readonly id: number;
  readonly personId: number;
  readonly actorId: number;
  readonly at: number;
  readonly tries: number;
  readonly what:
    | { readonly from: 'inside'; readonly message: Message }
    | { readonly from: 'outside'; readonly message: ReadMessage; readonly mail: Arriving };
}

interface Row {
  id: number;
  person_id: number;
  actor_id: number;
  at: number;
  tries: number;
  what: string;
}

const decode = (r: Row): Delivery => ({
  id: r.id,
  personId: r.person_id,
  actorId: r.actor_id,
  at: r.at,
  tries: r.tries,
  what: JSON.parse(r.what),
});

export const insertDelivery = (db: Connection, d: Omit<Delivery, 'id' | 'tries'>): number =>
  db.run(
    'INSERT INTO delivery (person_id, actor_id, at, due, what) VALUES (?, ?, ?, ?, ?)',
    d.personId,
    d.actorId,
    d.at,
    d.at,
    JSON.stringify(d.what),
  );

/** The next delivery that is due by an instant, behind another, in the order they were said; `null` where there is none. */
export function nextDelivery(db: Connection, now: number, after: number): Delivery | null {
  const row = db.get<Row>('SELECT * FROM delivery WHERE due <= ? AND id > ? ORDER BY id LIMIT 1', now, after);
  return row ? decode(row) : null;
}

/** The next delivery that was never tried. */
export function freshDelivery(db: Connection): Delivery | null {
  const row = db.get<Row>('SELECT * FROM delivery WHERE tries = 0 AND due IS NOT NULL ORDER BY id LIMIT 1');
  return row ? decode(row) : null;
}

export function deliveryById(db: Connection, id: number): Delivery | null {
  const row = db.get<Row>('SELECT * FROM delivery WHERE id = ?', id);
  return row ? decode(row) : null;
}

/** Into whose calendars messages are on their way, by the UID they are about: of the first `most`. */
export function onTheWay(db: Connection, most: number): Map<string, Set<number>> {
  const found = new Map<string, Set<number>>();
  const rows = db.arrays<[number, string | null]>(
    `SELECT person_id, json_extract(what, '$.message.uid') FROM delivery ORDER BY id LIMIT ?`,
    most,
  );
  for (const [person, uid] of rows) if (uid !== null) found.set(uid, (found.get(uid) ?? new Set()).add(person));
  return found;
}

/** Ends a delivery. Answers whether it was there: two threads that come to one deliver it once. */
export const endDelivery = (db: Connection, id: number): boolean =>
  db.changes('DELETE FROM delivery WHERE id = ?', id) === 1;

/** Tries a delivery again later; with `null` never, and it stays to be looked at. */
export const putOffDelivery = (db: Connection, id: number, due: number | null): void => {
  db.run('UPDATE delivery SET due = ?, tries = tries + 1 WHERE id = ?', due, id);
};
