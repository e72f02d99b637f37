import type { TaskListsAnswer, TaskListWire } from '@/contract/tasks.ts';
import { countOpen } from '../../repositories/tasks.ts';
import type { Result } from '../../result.ts';
import { type Context, type DecidedList, type Directory, listReaderFor } from '../deciding/index.ts';
import { listsSeen, listWire } from '../lists/index.ts';

/** Open tasks are counted up to so many. */
const MOST_COUNTED = 10_000;

/** A list of tasks as the viewer sees it. */
export function taskListWire(ctx: Context, on: DecidedList, directory: Directory): TaskListWire {
  const open = countOpen(ctx.db, on.list.id, listReaderFor(ctx.viewer.id, on.decision), MOST_COUNTED + 1);
  return { ...listWire(on, directory), open: open > MOST_COUNTED ? null : open };
}

/** Somebody's lists of tasks that the viewer sees; with one's own those of others that one sees. */
export const listTaskLists = (ctx: Context, handle: string): Result<TaskListsAnswer> =>
  listsSeen(ctx, 'tasks', handle, (on, directory) => taskListWire(ctx, on, directory));
