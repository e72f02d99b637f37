import type { Connection } from '../../../db/index.ts';
import { hub, type Listener } from '../../../live/hub.ts';

/** Tells some open windows something, once what it is about is committed: what is rolled back is never told. */
export function tell(
  db: Connection,
  whom: Iterable<Listener>,
  told: Parameters<ReturnType<typeof hub>['tell']>[1],
): void {
  const all = new Set(whom);
  db.afterWriting(() => {
    for (const one of all) hub().tell(one, told);
  });
}

/** Tells the open windows of some people that there is something new for them, once it is written. */
export const tellPeople = (db: Connection, people: Iterable<number>): void => tell(db, people, { kind: 'told' });
