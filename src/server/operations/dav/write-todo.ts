import { type TaskPatch, taskRoutes } from '@/contract/tasks.ts';
import { type ReadTodo, readTodos, withoutOwn } from '@/core/formats/index.ts';
import { type Due, taskFields } from '@/core/tasks/index.ts';
import { dateText, toWall, wallText } from '@/core/time/index.ts';
import { programTasks } from '../../repositories/program-names.ts';
import { taskByUid } from '../../repositories/tasks.ts';
import { must, ok, type Refusal, Refused, type Result, refuse } from '../../result.ts';
import { nameZone } from '../../zone-name.ts';
import { Directory } from '../deciding/index.ts';
import { COMMON_ZONES } from '../items/index.ts';
import { addReadTask, changeTask, removeTask } from '../tasks/index.ts';
import { checked, checkName } from './checked.ts';
import { type Seen, stillSo } from './seen.ts';
import type { TodoPrograms } from './todos.ts';

/*
 * What a program writes into a list of tasks: what it changed is found by holding its text against the text it was given, and made by the
 * operation that makes it for everybody.
 */

/** What a task may be called outside. */
const MOST_UID = 400;

/** The one task of a text, or why there is none: other components, several, a zone or a date that can't be read. */
function todoOf(text: string, zone: string, now: number): ReadTodo {
  const candidates = [zone, ...COMMON_ZONES];
  const read = readTodos(text, { zone, now, candidates, nameZone, most: 2 });
  if (read.kind === 'notACalendar') throw new Refused(refuse('notACalendar'));
  const wrong = read.kind === 'read' ? read.problems[0] : undefined;
  // A second of one name is a time of it by itself, which tasks don't have: they come again once they are done.
  if (wrong && wrong.code !== 'twice')
    throw new Refused(refuse('badInput', { fields: { [wrong.title ?? wrong.code]: 'unclear' } }));
  const [todo, more] = read.kind === 'read' ? read.todos : [];
  if (!todo || more || wrong) throw new Refused(refuse('badInput', { fields: { uid: 'oneThing' } }));
  if (todo.uid.length >= MOST_UID) throw new Refused(refuse('badInput', { fields: { uid: `tooLong:${MOST_UID}` } }));
  return todo;
}

const dueAs = (due: Due | null, zone: string) =>
  due && { at: 'date' in due ? dateText(due.date) : wallText(toWall(zone, due.instant)), zone };

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What differs between what a program was given and what it sends. */
function patchOf(before: ReadTodo, after: ReadTodo): Omit<TaskPatch, 'version'> {
  const names = Object.keys(taskFields) as (keyof typeof taskFields)[];
  const changed = names.filter((name) => !same(before[name], after[name]));
  const moved = !same(before.due, after.due);
  const done = (before.doneAt !== null) !== (after.doneAt !== null);
  return {
    fields: Object.fromEntries(changed.map((name) => [name, after[name]])),
    ...(moved ? { due: dueAs(after.due, after.zone) } : {}),
    ...(before.rule === after.rule ? {} : { repeats: after.rule }),
    ...(done ? { done: after.doneAt !== null } : {}),
  };
}

const mayNot = ({ ctx, decided }: TodoPrograms, code: 'mayNotChange' | 'mayNotAdd'): Refusal =>
  refuse(code, { facts: { name: new Directory(ctx.db).name(decided.list.ownerId) } });

/** Writes one task of a list as a program sends it. Refused wherever a window would be. `added` says that it is new. */
export function putTodo(programs: TodoPrograms, name: string, text: string, seen: Seen): Result<{ added: boolean }> {
  const { ctx, decided } = programs;
  const { list, decision } = decided;
  const zone = new Directory(ctx.db).person(list.ownerId)?.zone ?? ctx.viewer.zone;
  const found = programs.find(name);
  const now = found && programs.object(found.stored, found.view, { texts: true });
  if (!stillSo(seen, now?.tag ?? null)) return refuse('seenOtherwise');
  if (now && !now.mayChange) return mayNot(programs, 'mayNotChange');
  if (!now && !decision.rights.add) return mayNot(programs, 'mayNotAdd');
  const after = todoOf(text, zone, ctx.now);
  const seesAll = programs.all;
  if (!found || !now?.text) {
    checkName(name);
    // To nobody who isn't shown everything does what it is called outside say whether it was there.
    const there = seesAll ? taskByUid(ctx.db, list.id, after.uid) : null;
    if (there) return programs.alreadyThere(there);
    const task = must(addReadTask(ctx, decided, after, seesAll));
    programTasks.call(ctx.db, ctx.viewer.id, list.id, name, task.id);
    return ok({ added: true });
  }
  // What a program leaves out of our own words it doesn't know: that says nothing of them.
  const before = todoOf(/^X-PARAMO-/im.test(text) ? now.text : withoutOwn(now.text), zone, ctx.now);
  if (before.uid !== after.uid) return refuse('badInput', { fields: { uid: 'oneThing' } });
  const patch = patchOf(before, after);
  const unmodelled = seesAll && !same(before.kept, after.kept) ? after.kept : undefined;
  if (Object.keys(patch).length === 1 && Object.keys(patch.fields).length === 0 && unmodelled === undefined)
    return ok({ added: false });
  const body = checked(taskRoutes.changeTask.body, { ...patch, version: found.stored.version });
  must(changeTask(ctx, found.stored.key, body, unmodelled));
  return ok({ added: false });
}

/** Removes one task of a list, where the viewer may. */
export function deleteTodo(programs: TodoPrograms, name: string, seen: Seen): Result<{ done: true }> {
  const { ctx } = programs;
  const found = programs.find(name);
  if (!found) return refuse('notFound');
  if (!stillSo(seen, programs.object(found.stored, found.view, { texts: false }).tag)) return refuse('seenOtherwise');
  const { version } = found.view;
  must(removeTask(ctx, found.view.id, version === undefined ? {} : { version }));
  return ok({ done: true as const });
}
