import type { TaskWire } from '@/contract/tasks.ts';
import { dueEnds } from '@/core/tasks/index.ts';
import { listsOf } from '../../repositories/lists.ts';
import { hasTasksDue, type StoredTask, tasksDueBefore } from '../../repositories/tasks.ts';
import { type Context, type Directory, decideOnList, listReaderFor, TaskReading } from '../deciding/index.ts';

const DAY = 86_400_000;

/** A task that is due, as the viewer sees it. */
export interface DueTask {
  readonly task: StoredTask;
  readonly view: TaskWire;
}

/**
 * Open tasks in somebody's lists that are due before an instant, the most pressing first, as the viewer sees them: at most `most`; `cut`
 * where there are more. What somebody else does for them, and what they were only asked to do, is left out.
 */
export function tasksDue(
  ctx: Context,
  personId: number,
  before: number,
  most: number,
  directory: Directory,
): { readonly tasks: readonly DueTask[]; readonly cut: boolean } {
  const found: DueTask[] = [];
  let cut = false;
  // A day ends later than it begins, on whichever clock: by its order it is looked for a day and a half further.
  const end = before + 1.5 * DAY;
  if (!hasTasksDue(ctx.db, personId, end)) return { tasks: found, cut };
  for (const list of listsOf(ctx.db, 'tasks', personId)) {
    const on = decideOnList(ctx, list);
    if (on.decision.rights.sight === 'nothing') continue;
    const reading = new TaskReading(ctx, on, directory);
    const rows = tasksDueBefore(ctx.db, list.id, listReaderFor(ctx.viewer.id, on.decision), end, most + 1);
    cut ||= rows.length > most;
    for (const task of rows) {
      if (task.due === null || task.givenState === 'yes' || dueEnds(task.due, task.zone) >= before) continue;
      const view = reading.view(task);
      if (view && view.from?.said !== 'asked') found.push({ task, view });
    }
  }
  found.sort((a, b) => endsOf(a) - endsOf(b) || a.task.id - b.task.id);
  return { tasks: found.slice(0, most), cut: cut || found.length > most };
}

const endsOf = ({ task }: DueTask): number => (task.due === null ? 0 : dueEnds(task.due, task.zone));
