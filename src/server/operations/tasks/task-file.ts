import type { BroughtIn } from '@/contract/lists.ts';
import { calendarFileName, type ReadTodo, readTodos, writeTodos } from '@/core/formats/index.ts';
import { newKey } from '../../ids.ts';
import { personById } from '../../repositories/people.ts';
import { countTasks, type StoredTask, taskByUid, tasksOfList } from '../../repositories/tasks.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { nameZone } from '../../zone-name.ts';
import {
  authorship,
  type Context,
  type DecidedList,
  Directory,
  findList,
  isRefusal,
  type TaskToWrite,
  writeTasks,
} from '../deciding/index.ts';
import { holdsAll } from '../lists/index.ts';
import { MOST_TASKS, NEW } from './change-task.ts';
import { updateCopies } from './give-task.ts';

/** Tasks in one file, and the problems that are named. */
const MOST_IN_FILE = 2000;
const MOST_NAMED = 100;
const EVERYTHING = { privateToo: true, own: null } as const;

/** A list as a file of VTODOs (RFC 5545): all that is kept of its tasks. Reading it back gives the same. */
export function exportTasks(ctx: Context, key: string): Result<{ name: string; text: string }> {
  const found = findList(ctx, 'tasks', key);
  if (isRefusal(found)) return found;
  const { list, decision } = found;
  const owner = new Directory(ctx.db).name(list.ownerId);
  if (!holdsAll(decision)) return refuse('mayNotImport', { facts: { name: owner } });
  const name = list.first ? owner : list.name;
  const todos = tasksOfList(ctx.db, list.id, EVERYTHING, MOST_TASKS).map((task) => ({
    ...task,
    touched: task.version > 1,
  }));
  return ok({ name: calendarFileName(name, ctx.now), text: writeTodos(todos, name) });
}

/**
 * Brings the tasks of a file in: those that aren't there yet are added, those that are, and are otherwise in the file, changed. What can't be read is
 * named; nothing else comes of it. One act, taken back at once.
 */
export function importTasks(ctx: Context, key: string, text: string): Result<BroughtIn> {
  return ctx.db.write(() => {
    const found = findList(ctx, 'tasks', key);
    if (isRefusal(found)) return found;
    const { list, decision } = found;
    const owner = personById(ctx.db, list.ownerId);
    if (!holdsAll(decision) || !decision.rights.add || !owner)
      return refuse('mayNotImport', { facts: { name: owner?.name ?? '' } });
    const read = readTodos(text, {
      zone: owner.zone,
      now: ctx.now,
      candidates: [owner.zone],
      nameZone,
      most: MOST_IN_FILE,
    });
    if (read.kind === 'notACalendar') return refuse('notACalendar');
    if (read.kind === 'tooMany') return refuse('tooManyItems', { facts: { most: MOST_IN_FILE } });
    const writes = read.todos.flatMap((todo): TaskToWrite[] => {
      const before = taskByUid(ctx.db, list.id, todo.uid);
      if (before === null) return [{ before, after: fresh(ctx, list.id, todo, authorship(ctx, list)) }];
      // What somebody was given says what its giver says.
      if (before.copyOf !== null) return [];
      const after = { ...before, ...partOf(todo) };
      if (JSON.stringify(after) === JSON.stringify(before)) return [];
      return [{ before, after: { ...after, ...authorship(ctx, list), version: before.version + 1 } }];
    });
    const added = writes.filter(({ before }) => before === null).length;
    if (countTasks(ctx.db, list.id) + added > MOST_TASKS) return refuse('listFull', { facts: { most: MOST_TASKS } });
    const { changes, undo } = writeTasks(ctx, list, 'task.broughtIn', writes);
    for (const { before, after } of changes) if (before) updateCopies(ctx, before, after);
    return ok({
      added,
      changed: writes.length - added,
      same: read.todos.length - writes.length,
      problems: read.problems.slice(0, MOST_NAMED).map(({ code, line, title }) => ({ code, line, title })),
      left: read.problems.length,
      undo,
    });
  });
}

/** Adds one task that was read; what it is called outside is kept only where `named` says so. */
export function addReadTask(ctx: Context, { list }: DecidedList, todo: ReadTodo, named: boolean): Result<StoredTask> {
  if (countTasks(ctx.db, list.id) >= MOST_TASKS) return refuse('listFull', { facts: { most: MOST_TASKS } });
  const uid = named ? todo.uid : `${newKey()}@paramo`;
  const after = fresh(ctx, list.id, { ...todo, uid, kept: named ? todo.kept : [] }, authorship(ctx, list));
  const written = writeTasks(ctx, list, 'task.added', [{ before: null, after }]).changes[0]?.after;
  return written ? ok(written) : refuse('notFound');
}

/** What a file says of a task. */
const partOf = ({ line: _line, uid: _uid, zone, ...todo }: ReadTodo): Partial<StoredTask> =>
  todo.due === null ? todo : { ...todo, zone };

function fresh(
  ctx: Context,
  listId: number,
  todo: ReadTodo,
  own: ReturnType<typeof authorship>,
): Omit<StoredTask, 'id'> {
  const { line: _line, ...fields } = todo;
  return {
    ...NEW,
    itemId: null,
    recurrence: null,
    tie: null,
    tieDays: 0,
    ...fields,
    key: newKey(),
    listId,
    ...own,
    createdBy: own.changedBy,
    createdFor: own.changedFor,
    createdAt: ctx.now,
  };
}
