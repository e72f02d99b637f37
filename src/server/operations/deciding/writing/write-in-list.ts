import { type Decision, decide } from '@/core/access/index.ts';
import { now } from '../../../clock.ts';
import type { Connection } from '../../../db/index.ts';
import { hub } from '../../../live/hub.ts';
import { grantsOn } from '../../../repositories/grants.ts';
import type { ListKind, SharedList } from '../../../repositories/lists.ts';
import { collectionOf, rulesOf } from '../access/deciding.ts';
import type { Context } from '../context/context.ts';
import { A_SLICE, inTurn, listening } from './announce.ts';
import { trailOn } from './trail.ts';

/** Something of a list as it is to be from now on; what is new has no row number yet. */
export type ToWrite<S extends { readonly id: number }> =
  | { readonly before: S; readonly after: S }
  | { readonly before: null; readonly after: Omit<S, 'id'> };

/** One thing before and after a write. */
interface Change<S> {
  readonly before: S | null;
  readonly after: S;
}

interface StoredInList {
  readonly key: string;
  readonly id: number;
  readonly listId: number;
  readonly removedAt: number | null;
}

/**
 * Writes things of one list, in one transaction: their rows, one trail row, and, once it is committed, what open windows are told. Whether it
 * may be done is the caller's to decide, in the same transaction. Answers what was changed, and the key that undoes it.
 */
export function writeInList<K extends ListKind, S extends StoredInList>(
  ctx: Pick<Context, 'db' | 'now' | 'viewer'>,
  list: SharedList<K>,
  verb: string,
  writes: readonly ToWrite<S>[],
  rows: {
    readonly insert: (db: Connection, after: Omit<S, 'id'>) => S;
    readonly update: (db: Connection, after: S) => void;
    readonly look: Look<K, S>;
  },
): { readonly changes: readonly Change<S>[]; readonly undo: string } {
  if (writes.length === 0) return { changes: [], undo: '' };
  return ctx.db.write(() => {
    const changes = writes.map((one): Change<S> => {
      if (one.before === null) return { before: null, after: rows.insert(ctx.db, one.after) };
      // The compiler doesn't follow that what stood there before has its row number now.
      const after = one.after as S;
      rows.update(ctx.db, after);
      return { before: one.before, after };
    });
    const undo = trailOn(
      ctx,
      list,
      changes[0]?.after.key ?? '',
      verb,
      changes.map((c) => c.before),
      changes.map((c) => c.after),
    );
    announceInList(ctx, list, changes, rows.look);
    return { changes, undo };
  });
}

/** Makes one listener's view of a state, by what was decided for them. */
type Look<K extends ListKind, S> = (
  ctx: Context,
  on: { readonly list: SharedList<K>; readonly decision: Decision },
) => (state: S) => unknown;

/**
 * Tells the open windows of those whose view of something in a list differs between before and after that the list changed; nobody else hears of it.
 * Worked out beside the write, a few listeners at a time, by the rights of that instant.
 */
export function announceInList<K extends ListKind, S extends StoredInList>(
  { db }: Pick<Context, 'db'>,
  list: SharedList<K>,
  changes: readonly { readonly before: S | null; readonly after: S }[],
  look: Look<K, S>,
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
