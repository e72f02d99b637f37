import type { TasksAnswer, TaskWire } from '@/contract/tasks.ts';
import { openSealed, sealIds } from '../../ids.ts';
import { doneTasks, markOf, openTasks, type StoredTask, type TaskMark, taskById } from '../../repositories/tasks.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  type Context,
  Directory,
  findList,
  isRefusal,
  listReaderFor,
  noteUse,
  TaskReading,
} from '../deciding/index.ts';
import { taskListWire } from './lists.ts';

/** Tasks in one answer, by their number and about their size. */
const MOST = 300;
const MOST_BYTES = 2_000_000;

/** The tasks of a list as the viewer sees them: open ones by when they are due, or those that are done, the latest first; a page at a time. */
export function listTasks(
  ctx: Context,
  key: string,
  query: { done?: '1' | undefined; after?: string | undefined },
): Result<TasksAnswer> {
  const found = findList(ctx, 'tasks', key);
  if (isRefusal(found)) return found;
  const after = query.after === undefined ? null : readMark(ctx, query.after);
  if (query.after !== undefined && after === null) return refuse('badInput', { fields: { after: 'unclear' } });
  const read = query.done === '1' ? doneTasks : openTasks;
  const rows = read(ctx.db, found.list.id, listReaderFor(ctx.viewer.id, found.decision), after, MOST + 1);
  const directory = new Directory(ctx.db);
  const reading = new TaskReading(ctx, found, directory);
  const tasks: TaskWire[] = [];
  let bytes = 0;
  let last: StoredTask | null = null;
  for (const row of rows.slice(0, MOST)) {
    const view = reading.view(row);
    bytes += 400 + (view?.notes?.length ?? 0);
    if (bytes > MOST_BYTES && tasks.length > 0) break;
    if (view) tasks.push(view);
    last = row;
  }
  const end = rows.at(-1);
  noteUse(ctx, found.decision);
  return ok({
    list: taskListWire(ctx, found, directory),
    tasks,
    more:
      last === null || last.id === end?.id
        ? null
        : (sealIds([{ viewer: ctx.viewer.id, item: last.id, start: 0 }])[0] ?? null),
  });
}

/** Behind which task to go on: a row number would tell how many there are in the house. */
function readMark(ctx: Context, text: string): TaskMark | null {
  const sealed = openSealed(text);
  const task = sealed?.viewer === ctx.viewer.id ? taskById(ctx.db, sealed.item) : null;
  return task && markOf(task);
}
