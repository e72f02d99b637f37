import type { WrittenAnswer } from '@/contract/items/items.ts';
import { taskById, taskByUid } from '../../repositories/tasks.ts';
import { type TrailEntry, taskStates } from '../../repositories/trail.ts';
import type { Result } from '../../result.ts';
import { type Context, mayOnTask, UNDOABLE_ON_TASKS, writeTasks } from '../deciding/index.ts';
import { undoInList } from '../lists/index.ts';
import { updateCopies } from './give-task.ts';

/** Takes back one write on tasks. */
export const undoTask = (ctx: Context, entry: TrailEntry): Result<WrittenAnswer> =>
  undoInList(ctx, entry, {
    kind: 'tasks',
    undoable: UNDOABLE_ON_TASKS,
    states: taskStates(entry),
    current: (id) => taskById(ctx.db, id),
    called: (list, uid) => taskByUid(ctx.db, list.id, uid),
    may: (decision, task) => mayOnTask(ctx, decision, task),
    write: (list, tasks) => {
      const { undo, changes } = writeTasks(ctx, list, 'task.undone', tasks);
      for (const { before, after } of changes) if (before) updateCopies(ctx, before, after);
      return undo;
    },
  });
