import type { Connection } from '../../db/index.ts';
import { hub } from '../../live/hub.ts';

/** Tells the open windows of some people that there is something new for them, once it is written. */
export function tellPeople(db: Connection, people: Iterable<number>): void {
  const told = new Set(people);
  db.afterWriting(() => {
    for (const person of told) hub().tell(person, { kind: 'told' });
  });
}
