import { type Decision, decide } from '@/core/access/index.ts';
import { now } from '../../../clock.ts';
import { hub } from '../../../live/hub.ts';
import { grantsOn } from '../../../repositories/grants.ts';
import type { ListKind, SharedList } from '../../../repositories/lists.ts';
import { collectionOf, rulesOf } from '../access/deciding.ts';
import type { Context } from '../context/context.ts';
import { A_SLICE, inTurn, listening } from './announce.ts';

/** What was written, as far as telling of it goes. */
interface Change<S> {
  readonly before: S | null;
  readonly after: S;
}

/**
 * Tells the open windows of those whose view of something in a list differs between before and after that the list changed; nobody else hears of it.
 * Worked out beside the write, a few listeners at a time, by the rights of that instant. `look` makes one listener's view of a state.
 */
export function announceInList<
  K extends ListKind,
  S extends { readonly removedAt: number | null; readonly listId: number },
>(
  { db }: Pick<Context, 'db'>,
  list: SharedList<K>,
  changes: readonly Change<S>[],
  look: (ctx: Context, on: { readonly list: SharedList<K>; readonly decision: Decision }) => (state: S) => unknown,
): void {
  db.afterWriting(() => {
    const listeners = hub()
      .listeners()
      .filter((one): one is number => typeof one === 'number');
    if (listeners.length === 0) return;
    const collection = collectionOf(list, grantsOn(db, list.id));
    const house = rulesOf(db, list);
    inTurn(async () => {
      for (let from = 0; from < listeners.length; from += A_SLICE) {
        if (!db.raw.open) return;
        for (const { listener, viewer, person } of listening(db, listeners.slice(from, from + A_SLICE))) {
          const at = now();
          const decision = decide(collection, viewer, at, house);
          if (!person || decision.rights.sight === 'nothing') continue;
          const view = look({ db, now: at, viewer: person }, { list, decision });
          const seen = (state: S | null) =>
            state === null || state.removedAt !== null || state.listId !== list.id ? null : view(state);
          const differs = changes.some(
            ({ before, after }) => JSON.stringify(seen(before)) !== JSON.stringify(seen(after)),
          );
          if (differs) hub().tell(listener, { kind: list.kind, list: list.key });
        }
        await new Promise((others) => setImmediate(others));
      }
    });
  });
}
