import type { WrittenAnswer } from '@/contract/items/items.ts';
import { taskListById } from '../../repositories/task-lists.ts';
import { type StoredTask, taskById } from '../../repositories/tasks.ts';
import { type TrailEntry, taskStates } from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type Context,
  Directory,
  decideOnList,
  mayOnTask,
  UNDOABLE_ON_TASKS,
  writeTasks,
} from '../deciding/index.ts';
import { keepCopies } from './give-task.ts';

const UNDO_FOR = 15 * 60_000;
/** How long the owner may take back what was written in their list, whoever wrote it. */
const OWNER_UNDOES_FOR = 30 * 24 * 60 * 60_000;
/**
 * Takes back one write on tasks: one's own for a quarter of an hour, in one's own list anybody's for thirty days. Refused once somebody built on it,
 * and for whoever may no longer do to each task what taking it back does.
 */
export function undoTask(ctx: Context, entry: TrailEntry): Result<WrittenAnswer> {
  return ctx.db.write(() => {
    const { before, after } = taskStates(entry);
    const list = entry.collectionId === null ? null : taskListById(ctx.db, entry.collectionId);
    if (!list || after.length === 0 || !UNDOABLE_ON_TASKS.has(entry.verb)) return refuse('notFound');
    const decided = decideOnList(ctx, list);
    const { decision } = decided;
    if (decision.rights.sight === 'nothing' || (entry.actorId !== ctx.viewer.id && !decision.owner))
      return refuse('notFound');
    if (ctx.now - entry.at > (decision.owner ? OWNER_UNDOES_FOR : UNDO_FOR)) return refuse('notFound');
    const now = after.map((task) => taskById(ctx.db, task.id));
    if (now.some((task, i) => task?.version !== after[i]?.version)) return refuse('changedMeanwhile');
    const may = after.every((task, i) => mayTakeBack(ctx, decision, before[i] ?? null, task));
    if (!may) return refuse('mayNotChange', { facts: { name: new Directory(ctx.db).name(list.ownerId) } });
    const tasks = (now as StoredTask[]).map((current, i) => {
      const was = before[i];
      const back: StoredTask = {
        ...(was ?? { ...current, removedAt: ctx.now }),
        ...authorship(ctx, list),
        id: current.id,
        version: current.version + 1,
      };
      return { before: current, after: back };
    });
    const { undo, changes } = writeTasks(ctx, list, 'task.undone', tasks);
    for (const { before: was, after: is } of changes) if (was) keepCopies(ctx, was, is);
    return ok({ item: null, undo });
  });
}

function mayTakeBack(
  ctx: Context,
  decision: ReturnType<typeof decideOnList>['decision'],
  was: StoredTask | null,
  is: StoredTask,
): boolean {
  const on = (task: StoredTask) => mayOnTask(ctx, decision, { ...task, removedAt: null });
  if (was === null) return on(is).remove || on(is).change;
  if (is.removedAt !== null && was.removedAt === null) return on(was).remove || on(was).change;
  // Its writer made it private and so lost sight of it; this they may still undo.
  const hidByThis = was.visibility !== 'private' && is.visibility === 'private';
  return on(is).change || (hidByThis && on(was).change);
}
