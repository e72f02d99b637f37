import type { WrittenAnswer } from '@/contract/items/items.ts';
import type { Decision, MayItem } from '@/core/access/index.ts';
import type { Visibility } from '@/core/calendar/index.ts';
import { type ListKind, listById, type SharedList } from '../../repositories/lists.ts';
import type { TrailEntry } from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { authorship, type Context, Directory, decideOnList } from '../deciding/index.ts';

const UNDO_FOR = 15 * 60_000;
/** How long the owner may take back what was written in their list, whoever wrote it. */
const OWNER_UNDOES_FOR = 30 * 24 * 60 * 60_000;

/** What undoing needs to know of what a list holds. */
interface UndoableState {
  readonly id: number;
  /** What it is called outside: one of a name in a list. */
  readonly uid: string;
  readonly version: number;
  readonly visibility: Visibility;
  readonly removedAt: number | null;
}

/**
 * Takes back one write in a list: one's own for a quarter of an hour, in one's own list anybody's for thirty days. Refused once somebody built on it,
 * and for whoever may no longer do to each what taking it back does.
 */
export function undoInList<K extends ListKind, S extends UndoableState>(
  ctx: Context,
  entry: TrailEntry,
  of: {
    readonly kind: K;
    readonly undoable: ReadonlySet<string>;
    readonly states: { readonly before: readonly (S | null)[]; readonly after: readonly S[] };
    readonly current: (id: number) => S | null;
    /** What is called so outside in the list now. */
    readonly called: (list: SharedList<K>, uid: string) => S | null;
    readonly may: (decision: Decision, state: S) => MayItem;
    /** Writes each as it is to be again; answers the key that undoes that. */
    readonly write: (list: SharedList<K>, states: readonly { readonly before: S; readonly after: S }[]) => string;
  },
): Result<WrittenAnswer> {
  return ctx.db.write(() => {
    const { before, after } = of.states;
    const list = entry.collectionId === null ? null : listById(ctx.db, of.kind, entry.collectionId);
    if (!list || after.length === 0 || !of.undoable.has(entry.verb)) return refuse('notFound');
    const { decision } = decideOnList(ctx, list);
    if (decision.rights.sight === 'nothing' || (entry.actorId !== ctx.viewer.id && !decision.owner))
      return refuse('notFound');
    if (ctx.now - entry.at > (decision.owner ? OWNER_UNDOES_FOR : UNDO_FOR)) return refuse('notFound');
    const now = after.map((state) => of.current(state.id));
    if (now.some((state, i) => state?.version !== after[i]?.version)) return refuse('changedMeanwhile');
    const may = (state: S) => of.may(decision, { ...state, removedAt: null });
    if (!after.every((state, i) => mayTakeBack(may, before[i] ?? null, state)))
      return refuse('mayNotChange', { facts: { name: new Directory(ctx.db).name(list.ownerId) } });
    const states = (now as S[]).map((current, i) => ({
      before: current,
      after: {
        ...(before[i] ?? { ...current, removedAt: ctx.now }),
        ...authorship(ctx, list),
        id: current.id,
        version: current.version + 1,
      },
    }));
    // What came in again under its name meanwhile stands in its place.
    const isTaken = ({ after: { id, uid, removedAt } }: (typeof states)[number]) =>
      removedAt === null && (of.called(list, uid)?.id ?? id) !== id;
    if (states.some(isTaken)) return refuse('changedMeanwhile');
    return ok({ item: null, undo: of.write(list, states) });
  });
}

function mayTakeBack<S extends UndoableState>(may: (state: S) => MayItem, was: S | null, is: S): boolean {
  if (was === null) return may(is).remove || may(is).change;
  if (is.removedAt !== null && was.removedAt === null) return may(was).remove || may(was).change;
  // Its writer made it private and so lost sight of it; this they may still undo.
  const hidByThis = was.visibility !== 'private' && is.visibility === 'private';
  return may(is).change || (hidByThis && may(was).change);
}
