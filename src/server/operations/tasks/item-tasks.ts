import type { ItemTasksAnswer, TaskWire } from '@/contract/tasks.ts';
import { listsOf } from '../../repositories/lists.ts';
import { tasksOfItemIn } from '../../repositories/tasks.ts';
import { ok, type Result } from '../../result.ts';
import {
  type Context,
  Directory,
  decideOnList,
  findItem,
  isRefusal,
  listReaderFor,
  TaskReading,
} from '../deciding/index.ts';

/** Tasks of one item in an answer. */
const MOST = 100;

/**
 * The tasks that belong to an item which the viewer sees in full: those of its owner's lists they see, as far as it is shown there what a task
 * belongs to. Of a series all are answered; of one occurrence its own, and those of the whole series.
 */
export function listItemTasks(ctx: Context, id: string): Result<ItemTasksAnswer> {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return found;
  const { item, occurrence, decided } = found;
  const of = {
    itemId: item.seriesId ?? item.id,
    recurrence: item.seriesId === null ? (occurrence?.recurrence ?? null) : item.recurrence,
  };
  const directory = new Directory(ctx.db);
  const tasks: TaskWire[] = [];
  const lists: { key: string; name: string }[] = [];
  for (const list of listsOf(ctx.db, 'tasks', decided.calendar.ownerId)) {
    const on = decideOnList(ctx, list);
    if (on.decision.rights.sight === 'nothing') continue;
    if (on.decision.rights.add) lists.push({ key: list.key, name: list.first ? '' : list.name });
    const reading = new TaskReading(ctx, on, directory);
    const reader = listReaderFor(ctx.viewer.id, on.decision);
    for (const task of tasksOfItemIn(ctx.db, list.id, of, reader, MOST + 1)) {
      const view = reading.view(task);
      if (view?.belongsTo !== undefined) tasks.push(view);
    }
  }
  return ok({ tasks: tasks.slice(0, MOST), cut: tasks.length > MOST, lists });
}
