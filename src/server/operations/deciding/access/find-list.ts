import type { Decision, MayItem } from '@/core/access/index.ts';
import { type ListKind, listById, listByKey, type SharedList } from '../../../repositories/lists.ts';
import type { ListReader } from '../../../repositories/shown.ts';
import { type StoredTask, taskByKey } from '../../../repositories/tasks.ts';
import { type Refusal, refuse } from '../../../result.ts';
import type { Context } from '../context/context.ts';
import { mayOnTask, TaskReading } from '../reading/task-views.ts';
import { type DecidedAlone, decideOnShared } from './deciding.ts';

/** A list together with what the viewer may see and do there now. */
export interface DecidedList<K extends ListKind = 'tasks'> extends DecidedAlone {
  readonly list: SharedList<K>;
}

export const decideOnList = <K extends ListKind>(ctx: Context, list: SharedList<K>): DecidedList<K> => ({
  list,
  ...decideOnShared(ctx, list),
});

/** Finds a list of a kind, or (`null`) of any, by its key; one that the asker may not see is answered exactly like one that doesn't exist. */
export function findList<K extends ListKind>(ctx: Context, kind: K | null, key: string): DecidedList<K> | Refusal {
  const list = listByKey(ctx.db, kind, key);
  if (!list) return refuse('notFound');
  const decided = decideOnList(ctx, list);
  return decided.decision.rights.sight === 'nothing' ? refuse('notFound') : decided;
}

/** Which of a list somebody is shown at all: the rule of what is private, for the query that reads it. */
export const listReaderFor = (viewer: number, { owner, rights }: Decision): ListReader => ({
  privateToo: owner || rights.private,
  own: rights.change === 'none' ? null : viewer,
});

/** A task that the viewer sees in full, with what they may do with it. */
export interface FoundTask {
  readonly decided: DecidedList;
  readonly task: StoredTask;
  readonly may: MayItem;
}

/** Finds a task by its key for the viewer. One they don't see in full is answered exactly like one that doesn't exist. */
export function findTask(ctx: Context, key: string): FoundTask | Refusal {
  const task = taskByKey(ctx.db, key);
  const list = task && task.removedAt === null ? listById(ctx.db, 'tasks', task.listId) : null;
  if (!task || !list) return refuse('notFound');
  const decided = decideOnList(ctx, list);
  const view = new TaskReading(ctx, decided).view(task);
  if (!view || view.version === undefined) return refuse('notFound');
  return { decided, task, may: mayOnTask(ctx, decided.decision, task) };
}
