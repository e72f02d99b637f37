import { ok, type Result, refuse } from '../../result.ts';
import { type Context, type DecidedList, decideOnList } from '../deciding/index.ts';
import { CardPrograms } from './cards.ts';
import { type ProgramKind, programList } from './program-list.ts';
import type { ObjectsWanted, ProgramObject } from './program-object.ts';
import type { Seen } from './seen.ts';
import { TodoPrograms } from './todos.ts';
import { deleteCard, putCard } from './write-card.ts';
import { deleteTodo, putTodo } from './write-todo.ts';

/** What a program does with one list, whatever it holds. */
export interface ProgramsOnList {
  list(wanted: ObjectsWanted): Result<{ objects: ProgramObject[]; missing: string[]; cut: boolean }>;
  read(name: string): Result<ProgramObject>;
  put(name: string, text: string, seen: Seen): Result<{ added: boolean }>;
  remove(name: string, seen: Seen): Result<{ done: true }>;
}

const isOf = <K extends ProgramKind>(kind: K, on: DecidedList<ProgramKind>): on is DecidedList<K> =>
  on.list.kind === kind;

/** A list as one's programs have it; `null` where no such list is there, or nothing of it is theirs to see. */
export function listProgramsOn(ctx: Context, key: string): ProgramsOnList | null {
  const list = programList(ctx.db, key);
  const on = list && decideOnList(ctx, list);
  if (!on || on.decision.rights.sight === 'nothing') return null;
  if (isOf('contacts', on)) {
    const cards = new CardPrograms(ctx, on);
    return {
      list: (wanted) => cards.list(wanted),
      read: (name) => {
        const found = cards.find(name);
        return found ? ok(cards.object(found.stored, found.view, { texts: true })) : refuse('notFound');
      },
      put: (name, text, seen) => putCard(cards, name, text, seen),
      remove: (name, seen) => deleteCard(cards, name, seen),
    };
  }
  const todos = new TodoPrograms(ctx, on as DecidedList<'tasks'>);
  return {
    list: (wanted) => todos.list(wanted),
    read: (name) => {
      const found = todos.find(name);
      return found ? ok(todos.object(found.stored, found.view, { texts: true })) : refuse('notFound');
    },
    put: (name, text, seen) => putTodo(todos, name, text, seen),
    remove: (name, seen) => deleteTodo(todos, name, seen),
  };
}
