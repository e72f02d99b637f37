import { createHash } from 'node:crypto';
import type { TaskWire } from '@/contract/tasks.ts';
import { fitsFilter, type SeenTodo, writeTodos } from '@/core/formats/index.ts';
import { type Due, isWithin, newTaskFields, WRITTEN_TASK_FIELDS, type WrittenTask } from '@/core/tasks/index.ts';
import { dateText, EARLIEST, LATEST, parseDate, parseInstant } from '@/core/time/index.ts';
import { bareIdFor } from '../../ids.ts';
import { listByKey } from '../../repositories/lists.ts';
import { programTaskNames, taskByProgramName } from '../../repositories/program-names.ts';
import { type StoredTask, taskById, taskByKey, tasksOfList } from '../../repositories/tasks.ts';
import { ok, type Result } from '../../result.ts';
import {
  type Context,
  type DecidedList,
  decideOnList,
  listReaderFor,
  noteUse,
  TaskReading,
} from '../deciding/index.ts';
import { holdsAll } from '../lists/index.ts';
import { MOST_TASKS } from '../tasks/index.ts';
import { MOST_BYTES, MOST_OBJECTS, type ObjectsWanted, type ProgramObject } from './program-object.ts';

/*
 * A list of tasks as the things a program reads (VTODO, RFC 5545 3.6.2, in a calendar of its own, RFC 4791 4.1), each at exactly the sight of
 * whoever asks. What they may change is written as it is kept; all else as they see it, under the id that the screen gives it.
 */

const hash = (text: string): string => createHash('sha256').update(text).digest('base64url').slice(0, 22);

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

/** One list as one person's programs have it. */
export class ListPrograms {
  readonly reading: TaskReading;
  private readonly names: ReadonlyMap<number, string>;
  private readonly reader;
  private readonly all: boolean;
  private ids: ReadonlyMap<string, StoredTask> | null = null;
  constructor(
    readonly ctx: Context,
    readonly decided: DecidedList,
  ) {
    this.reading = new TaskReading(ctx, decided);
    this.names = programTaskNames(ctx.db, ctx.viewer.id, decided.list.id);
    this.reader = listReaderFor(ctx.viewer.id, decided.decision);
    this.all = holdsAll(decided.decision);
  }

  /** A task as it is written for whoever asks, of what they see of it. */
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

  /** A task as one thing; `once` is it without its further times. */
  object(task: StoredTask, view: TaskWire, texts: boolean, once = false): ProgramObject {
    const todo = this.writtenOf(task, view);
    const tag = hash(JSON.stringify([view, todo.kept]));
    const text = texts ? writeTodos([once ? { ...todo, rule: null } : todo], null) : null;
    return { name: this.nameOf(task, view), tag, scheduleTag: tag, text, mayChange: view.may?.change === true };
  }

  private nameOf(task: StoredTask, view: TaskWire): string {
    return this.names.get(task.id) ?? `${view.id}.ics`;
  }

  /** Whether a task as it is seen falls between two instants. */
  within(task: StoredTask, view: TaskWire, { from, to }: { readonly from: number; readonly to: number }): boolean {
    const { due, rule, zone, doneAt } = this.writtenOf(task, view);
    const timed = { due, rule, zone, doneAt: doneAt === 'unsaid' ? null : doneAt };
    return isWithin(timed, Math.max(from, EARLIEST), Math.min(to, LATEST));
  }

  /** All that is shown of the list, and whether there is more than an answer holds. */
  shown(): { readonly tasks: { task: StoredTask; view: TaskWire }[]; readonly cut: boolean } {
    const rows = tasksOfList(this.ctx.db, this.decided.list.id, this.reader, MOST_OBJECTS + 1);
    const tasks = rows.slice(0, MOST_OBJECTS).flatMap((task) => {
      const view = this.reading.view(task);
      return view ? [{ task, view }] : [];
    });
    return { tasks, cut: rows.length > MOST_OBJECTS };
  }

  /** A task of this list by its name; `null` where the one who asks has none so. */
  find(name: string): { readonly task: StoredTask; readonly view: TaskWire } | null {
    const { ctx, decided } = this;
    const given = taskByProgramName(ctx.db, ctx.viewer.id, decided.list.id, name);
    const id = /^([A-Za-z0-9_~-]{1,120})\.ics$/.exec(name)?.[1];
    const stored = given !== null ? taskById(ctx.db, given) : id === undefined ? null : this.byId(id);
    if (!stored || stored.removedAt !== null || stored.listId !== decided.list.id) return null;
    const view = this.reading.view(stored);
    return view && this.nameOf(stored, view) === name ? { task: stored, view } : null;
  }

  /** By the id it has on screen: its key for whoever sees it in full, one of their own for everybody else. */
  private byId(id: string): StoredTask | null {
    const { ctx, decided } = this;
    const known = taskByKey(ctx.db, id);
    if (known) return known;
    this.ids ??= new Map(
      tasksOfList(ctx.db, decided.list.id, this.reader, MOST_TASKS).map((task) => [
        bareIdFor(ctx.viewer.id, task.key),
        task,
      ]),
    );
    return this.ids.get(id) ?? null;
  }
}

/** A list as one's programs have it; `null` where no such list is there, or nothing of it is theirs to see. */
export function listProgramsOn(ctx: Context, key: string): ListPrograms | null {
  const list = listByKey(ctx.db, 'tasks', key);
  const decided = list && decideOnList(ctx, list);
  return decided && decided.decision.rights.sight !== 'nothing' ? new ListPrograms(ctx, decided) : null;
}

/** The tasks of a list that are wanted, within the budget of an answer. */
export function listTodos(
  programs: ListPrograms,
  wanted: ObjectsWanted,
): Result<{ objects: ProgramObject[]; missing: string[]; cut: boolean }> {
  const { ctx, decided } = programs;
  noteUse(ctx, decided.decision);
  const { names, filter, range, expand } = wanted;
  const texts = wanted.texts || filter !== undefined;
  const missing: string[] = [];
  const shown = names ? { tasks: [], cut: names.length > MOST_OBJECTS } : programs.shown();
  const found = names
    ? names.slice(0, MOST_OBJECTS).flatMap((name) => {
        const one = programs.find(name);
        if (!one) missing.push(name);
        return one ?? [];
      })
    : shown.tasks;
  const objects: ProgramObject[] = [];
  let bytes = 0;
  let { cut } = shown;
  for (const { task, view } of found) {
    if (range && !programs.within(task, view, range)) continue;
    const object = programs.object(task, view, texts, expand !== undefined);
    if (filter && !fitsFilter(object.text ?? '', filter)) continue;
    bytes += object.text?.length ?? 200;
    if (bytes > MOST_BYTES) {
      cut = true;
      break;
    }
    objects.push(object);
  }
  return ok({ objects, missing, cut });
}
