import type { Decision, MayItem } from '@/core/access/index.ts';
import { type TaskList, taskListById, taskListByKey } from '../../../repositories/task-lists.ts';
import { type StoredTask, type TaskReader, taskByKey } from '../../../repositories/tasks.ts';
import { type Refusal, refuse } from '../../../result.ts';
import type { Context } from '../context/context.ts';
import { mayOnTask, TaskReading } from '../reading/task-views.ts';
import { type DecidedAlone, decideOnShared } from './deciding.ts';

/** A list of tasks together with what the one who asks may see and do there now. */
export interface DecidedList extends DecidedAlone {
  readonly list: TaskList;
}

export const decideOnList = (ctx: Context, list: TaskList): DecidedList => ({ list, ...decideOnShared(ctx, list) });

/** Finds a list by its key; one that the asker may not see is answered exactly like one that doesn't exist. */
export function findList(ctx: Context, key: string): DecidedList | Refusal {
  const list = taskListByKey(ctx.db, key);
  if (!list) return refuse('notFound');
  const decided = decideOnList(ctx, list);
  return decided.decision.rights.sight === 'nothing' ? refuse('notFound') : decided;
}

/** Which tasks of a list somebody is shown at all: the rule of what is private, for the query that reads them. */
export const taskReaderFor = (viewer: number, { owner, rights }: Decision): TaskReader => ({
  privateToo: owner || rights.private,
  own: rights.change === 'none' ? null : viewer,
});

/** A task that the one who asks sees in full, with what they may do with it. */
export interface FoundTask {
  readonly decided: DecidedList;
  readonly task: StoredTask;
  readonly may: MayItem;
}

/** Finds a task by its key for the one who asks. One they don't see in full is answered exactly like one that doesn't exist. */
export function findTask(ctx: Context, key: string): FoundTask | Refusal {
  const task = taskByKey(ctx.db, key);
  const list = task && task.removedAt === null ? taskListById(ctx.db, task.listId) : null;
  if (!task || !list) return refuse('notFound');
  const decided = decideOnList(ctx, list);
  const view = new TaskReading(ctx, decided).view(task);
  if (!view || view.version === undefined) return refuse('notFound');
  return { decided, task, may: mayOnTask(ctx, decided.decision, task) };
}
