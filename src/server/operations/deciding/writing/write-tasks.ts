import { dueDay, tiedDue } from '@/core/tasks/index.ts';
import { dateText, parseDate, parseWall, toWall, wallText } from '@/core/time/index.ts';
import { listById, type TaskList } from '../../../repositories/lists.ts';
import { personById } from '../../../repositories/people.ts';
import type { StoredItem } from '../../../repositories/stored-item.ts';
import { insertTask, type StoredTask, tasksOfItem, updateTask } from '../../../repositories/tasks.ts';
import type { Context } from '../context/context.ts';
import { TaskReading } from '../reading/task-views.ts';
import { occurrenceOfText, repeats } from './indexing.ts';
import { type ToWrite, writeInList } from './write-in-list.ts';

type Acting = Pick<Context, 'db' | 'now' | 'viewer'>;

export type TaskToWrite = ToWrite<StoredTask>;

/** Writes tasks of one list. Every write on tasks goes through here. */
export const writeTasks = (ctx: Acting, list: TaskList, verb: string, tasks: readonly TaskToWrite[]) =>
  writeInList(ctx, list, verb, tasks, {
    insert: insertTask,
    update: updateTask,
    look: (theirs, on) => {
      const reading = new TaskReading(theirs, on);
      return (task) => reading.view(task);
    },
  });

/** What can be taken back on tasks; what is said by others, or follows of something else, stands until that is taken back. */
export const UNDOABLE_ON_TASKS: ReadonlySet<string> = new Set([
  'task.added',
  'task.broughtIn',
  'task.changed',
  'task.done',
  'task.removed',
]);

/** Tasks that follow one item. */
const MOST_FOLLOWING = 200;

/**
 * Moves what belongs to items with them, in the transaction that moved those: a task is due as many days before or after its item as it was.
 * A task of an occurrence that became an item of its own follows that one; where a whole series moved, its occurrences are named anew.
 */
export function tasksFollow(
  ctx: Acting,
  changes: readonly { readonly before: StoredItem | null; readonly after: StoredItem }[],
): void {
  const byList = new Map<number, TaskToWrite[]>();
  for (const { before, after } of changes) {
    if (after.removedAt !== null) continue;
    const tied = tasksOfItem(ctx.db, after.seriesId ?? after.id, MOST_FOLLOWING);
    for (const task of tied) {
      const followed = followedBy(ctx, task, before, after);
      if (!followed) continue;
      const next = { ...task, ...followed, version: task.version + 1, changedAt: ctx.now };
      byList.set(task.listId, [...(byList.get(task.listId) ?? []), { before: task, after: next }]);
    }
  }
  for (const [id, tasks] of byList) {
    const list = listById(ctx.db, 'tasks', id);
    const owner = list && personById(ctx.db, list.ownerId);
    // Whoever moved the item may not know of the task: it follows for its owner, and in that one's name.
    if (list && owner) writeTasks({ ...ctx, viewer: owner }, list, 'task.followed', tasks);
  }
}

/** What becomes of a task where the item it belongs to was written; `null` where it stays as it is. */
function followedBy(
  ctx: Acting,
  task: StoredTask,
  before: StoredItem | null,
  after: StoredItem,
): Pick<StoredTask, 'due' | 'recurrence'> | null {
  if (task.tie === null || task.doneAt !== null) return null;
  const recurrence = after.seriesId === null ? movedRecurrence(task.recurrence, before, after) : task.recurrence;
  const named = after.seriesId === null ? recurrence : after.recurrence;
  if (after.seriesId !== null && task.recurrence !== named) return null;
  const at =
    after.seriesId === null && recurrence !== null && repeats(after)
      ? occurrenceOfText(ctx.db, after, recurrence)
      : { item: after, start: after.start, end: after.end };
  if (!at) return null;
  const due = tiedDue({ start: at.start, end: at.end, allDay: at.item.allDay }, task.tie, task.tieDays, task.zone);
  const same = task.due !== null && dueDay(task.due, task.zone) === dueDay(due, task.zone);
  return same && recurrence === task.recurrence ? null : { due: same ? task.due : due, recurrence };
}

/** How an occurrence of a series is named once the whole of it moved. */
function movedRecurrence(recurrence: string | null, before: StoredItem | null, after: StoredItem): string | null {
  if (recurrence === null || before === null || before.allDay !== after.allDay) return recurrence;
  const startWall = (item: StoredItem) => item.wall ?? (item.allDay ? item.start : toWall(item.zone, item.start));
  const wall = after.allDay ? parseDate(recurrence) : parseWall(recurrence);
  if (wall === null) return recurrence;
  const moved = wall + startWall(after) - startWall(before);
  return after.allDay ? dateText(moved) : wallText(moved);
}
