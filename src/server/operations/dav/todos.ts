import type { TaskWire } from '@/contract/tasks.ts';
import { fitsFilter, type SeenTodo, writeTodos } from '@/core/formats/index.ts';
import { type Due, isWithin, newTaskFields, WRITTEN_TASK_FIELDS, type WrittenTask } from '@/core/tasks/index.ts';
import { dateText, EARLIEST, LATEST, parseDate, parseInstant } from '@/core/time/index.ts';
import { programTasks } from '../../repositories/program-names.ts';
import { type StoredTask, taskById, taskByKey, tasksOfList } from '../../repositories/tasks.ts';
import { type Context, type DecidedList, TaskReading } from '../deciding/index.ts';
import { hash, ListPrograms } from './list-programs.ts';
import type { ObjectsWanted, ProgramObject } from './program-object.ts';

/*
 * A list of tasks as the objects a program reads (VTODO, RFC 5545 3.6.2, in a calendar of its own, RFC 4791 4.1).
 */

/** What isn't shown of a task is written as in a new one. */
const fresh = Object.fromEntries(
  WRITTEN_TASK_FIELDS.map((name) => [name, name === 'title' ? '' : newTaskFields[name].parse(undefined)]),
) as unknown as WrittenTask;

function dueIn(view: TaskWire): Due | null {
  const date = view.due === null ? null : parseDate(view.due);
  if (date !== null) return { date };
  const instant = view.due === null ? null : parseInstant(view.due);
  return instant === null ? null : { instant };
}

/** One list of tasks as one person's programs have it. */
export class TodoPrograms extends ListPrograms<'tasks', StoredTask, TaskWire> {
  private readonly reading: TaskReading;
  constructor(ctx: Context, decided: DecidedList) {
    const { db, viewer } = ctx;
    const { id } = decided.list;
    super(
      ctx,
      decided,
      {
        byId: (task) => taskById(db, task),
        byKey: (key) => taskByKey(db, key),
        all: (reader, most) => tasksOfList(db, id, reader, most),
        byName: (name) => programTasks.byName(db, viewer.id, id, name),
        names: programTasks.names(db, viewer.id, id),
      },
      '.ics',
    );
    this.reading = new TaskReading(ctx, decided);
  }

  view(task: StoredTask): TaskWire | null {
    return this.reading.view(task);
  }

  /** A task as it is written for the viewer, of what they see of it. */
  private writtenOf(task: StoredTask, view: TaskWire): SeenTodo {
    if (view.may?.change)
      return { ...task, kept: this.all ? task.kept : [], changedAt: task.changedAt, touched: task.version > 1 };
    return {
      ...(Object.fromEntries(
        WRITTEN_TASK_FIELDS.map((name) => [name, view[name as keyof TaskWire] ?? fresh[name]]),
      ) as unknown as WrittenTask),
      uid: `${view.id}@paramo`,
      due: dueIn(view),
      zone: view.zone ?? this.ctx.viewer.zone,
      rule: view.repeats ?? null,
      doneAt: view.done ? 'unsaid' : null,
      kept: [],
      // When it was last changed isn't for everybody who sees it.
      changedAt: parseDate(dateText(this.ctx.now)) ?? 0,
      touched: false,
    };
  }

  /** A task as one object; expanded it is without its further times. */
  object(task: StoredTask, view: TaskWire, { texts, expand }: Pick<ObjectsWanted, 'texts' | 'expand'>): ProgramObject {
    const todo = this.writtenOf(task, view);
    const tag = hash(JSON.stringify([view, todo.kept]));
    const text = texts ? writeTodos([expand ? { ...todo, rule: null } : todo], null) : null;
    return { name: this.nameOf(task, view), tag, scheduleTag: tag, text, mayChange: view.may?.change === true };
  }

  fits(task: StoredTask, view: TaskWire, { range, filter }: ObjectsWanted): boolean {
    if (!range && !filter) return true;
    const todo = this.writtenOf(task, view);
    const { due, rule, zone, doneAt } = todo;
    const timed = { due, rule, zone, doneAt: doneAt === 'unsaid' ? null : doneAt };
    if (range && !isWithin(timed, Math.max(range.from, EARLIEST), Math.min(range.to, LATEST))) return false;
    return !filter || fitsFilter(writeTodos([todo], null), filter);
  }
}
