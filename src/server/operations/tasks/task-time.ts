import { newItem } from '@/contract/items/items.ts';
import type { TaskTimeBody, TaskWrittenAnswer } from '@/contract/tasks.ts';
import { calendarByKey, mainCalendarOf } from '../../repositories/calendars.ts';
import { itemById } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { must, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type Context,
  Directory,
  findTask,
  isRefusal,
  TaskReading,
  writeTasks,
} from '../deciding/index.ts';
import { changeItem, createItem, removeItem } from '../items/index.ts';
import { answerOf } from './answer.ts';

/**
 * Sets time aside for a task in a calendar of the same owner's, moves it, or (`when` is `null`) takes it out again; by the rights one has in that
 * calendar. The time is called what the task is, and is shown as narrowly: what is open to all who see the list isn't open to all who see the calendar. All of it is written, or nothing.
 */
export function setTaskTime(ctx: Context, key: string, body: TaskTimeBody): Result<TaskWrittenAnswer> {
  return ctx.db.write(() => {
    const found = findTask(ctx, key);
    if (isRefusal(found)) return found;
    const { decided, task } = found;
    const { list } = decided;
    const name = new Directory(ctx.db).name(list.ownerId);
    if (!found.may.change) return refuse('mayNotChange', { facts: { name } });
    if (task.version !== body.version)
      return refuse('changedMeanwhile', { data: new TaskReading(ctx, decided).view(task) });
    const stands = timeOf(ctx, task.timeItemId);
    if (body.when === null) {
      if (stands) must(removeItem(ctx, stands.key, { version: stands.version, scope: 'all' }));
      return written(null);
    }
    if (stands) {
      must(changeItem(ctx, stands.key, { version: stands.version, scope: 'all', when: body.when, fields: {} }));
      return written(stands.id);
    }
    const calendar =
      body.calendar === null ? mainCalendarOf(ctx.db, list.ownerId) : calendarByKey(ctx.db, body.calendar);
    if (calendar?.ownerId !== list.ownerId) return refuse('badInput', { fields: { calendar: 'otherCalendar' } });
    const visibility = task.visibility === 'open' ? 'follow' : task.visibility;
    const input = newItem.parse({ when: body.when, title: task.title, kind: 'focus', visibility });
    const made = must(createItem(ctx, calendar.key, input));
    return written(made.item?.id ?? null);

    function written(timeItemId: number | null) {
      const next = { ...task, ...authorship(ctx, list), timeItemId, version: task.version + 1 };
      const { changes } = writeTasks(ctx, list, 'task.timed', [{ before: task, after: next }]);
      return answerOf(ctx, decided, changes[0]?.after ?? null, '');
    }
  });
}

/** The time that is set aside for a task, where it still stands. */
function timeOf(ctx: Context, id: number | null): StoredItem | null {
  const item = id === null ? null : itemById(ctx.db, id);
  return item && item.removedAt === null ? item : null;
}
