import type { TaskWrittenAnswer } from '@/contract/tasks.ts';
import { newKey } from '../../ids.ts';
import { firstListOf, listById } from '../../repositories/lists.ts';
import { personByHandle } from '../../repositories/people.ts';
import { copyOfTask, type StoredTask, taskById } from '../../repositories/tasks.ts';
import { type Refusal, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type Context,
  type DecidedList,
  Directory,
  findTask,
  isRefusal,
  tellPeople,
  writeTasks,
} from '../deciding/index.ts';
import { answerOf } from './answer.ts';

/*
 * A task is given to somebody to do: they get one of their own in the list they began with, asked about until they say yes or no. What
 * it says stays whose it came from; that it is done is said on either side and stands on both.
 */

/** A task as it is once it is given to somebody (`null`: back to whose it is), or the refusal that says why it can't be. */
export function giveTo(
  ctx: Context,
  { list }: DecidedList,
  task: StoredTask,
  handle: string | null,
): { readonly task: StoredTask } | Refusal {
  if (handle === null) return { task: { ...task, givenTo: null, givenState: null, givenNote: null } };
  const person = personByHandle(ctx.db, handle);
  if (!person?.inside || person.leftAt !== null || person.resource || person.id === list.ownerId)
    return refuse('badInput', { fields: { give: 'person' } });
  return { task: { ...task, givenTo: person.id, givenState: 'asked', givenNote: null } };
}

/** What somebody was given of a task: what they read of it is what it says. */
const SAID = ['title', 'notes', 'link', 'importance', 'due', 'zone', 'doneAt'] as const;

/** Keeps what was given, and what it was given of, alike, in the transaction that changed one of them. */
export function updateCopies(ctx: Context, before: StoredTask, after: StoredTask): void {
  if (after.copyOf === null) updateGiven(ctx, before, after);
  else if (before.doneAt !== after.doneAt) {
    const origin = taskById(ctx.db, after.copyOf);
    const list = origin && origin.removedAt === null ? listById(ctx.db, 'tasks', origin.listId) : null;
    if (origin && list && origin.doneAt !== after.doneAt)
      writeTasks(ctx, list, 'task.changed', [
        {
          before: origin,
          after: { ...origin, ...authorship(ctx, list), doneAt: after.doneAt, version: origin.version + 1 },
        },
      ]);
  }
}

function updateGiven(ctx: Context, before: StoredTask, after: StoredTask): void {
  const standing = copyOfTask(ctx.db, after.id);
  const owner = standing ? (listById(ctx.db, 'tasks', standing.listId)?.ownerId ?? null) : null;
  const to = after.removedAt === null && after.givenState !== 'no' ? after.givenTo : null;
  if (standing && owner !== to) takeCopyBack(ctx, standing);
  if (to === null) return;
  if (!standing || owner !== to) {
    if (before.givenTo !== to || before.givenState === null || before.removedAt !== null) makeCopy(ctx, after, to);
    return;
  }
  const now = Object.fromEntries(SAID.map((name) => [name, after[name]])) as Pick<StoredTask, (typeof SAID)[number]>;
  if (SAID.every((name) => JSON.stringify(standing[name]) === JSON.stringify(now[name]))) return;
  const list = listById(ctx.db, 'tasks', standing.listId);
  if (!list) return;
  const next = { ...standing, ...now, ...authorship(ctx, list), version: standing.version + 1 };
  writeTasks(ctx, list, 'task.changed', [{ before: standing, after: next }]);
}

function takeCopyBack(ctx: Context, copy: StoredTask): void {
  const list = listById(ctx.db, 'tasks', copy.listId);
  if (!list) return;
  const gone = { ...copy, ...authorship(ctx, list), removedAt: ctx.now, version: copy.version + 1 };
  writeTasks(ctx, list, 'task.removed', [{ before: copy, after: gone }]);
  tellPeople(ctx.db, [list.ownerId]);
}

function makeCopy(ctx: Context, task: StoredTask, to: number): void {
  const first = firstListOf(ctx.db, 'tasks', to);
  const whose = listById(ctx.db, 'tasks', task.listId);
  if (!whose) return;
  const { id: _id, ...rest } = task;
  const copy = {
    ...rest,
    key: newKey(),
    uid: `${newKey()}@paramo`,
    listId: first.id,
    rule: null,
    itemId: null,
    recurrence: null,
    tie: null,
    tieDays: 0,
    timeItemId: null,
    categories: [],
    givenTo: null,
    givenState: null,
    givenNote: null,
    copyOf: task.id,
    version: 1,
    kept: [],
    // Who gave it, and in whose name.
    createdBy: ctx.viewer.id,
    createdFor: whose.ownerId,
    createdAt: ctx.now,
    changedBy: ctx.viewer.id,
    changedFor: whose.ownerId,
    changedAt: ctx.now,
  };
  writeTasks(ctx, first, 'task.givenHere', [{ before: null, after: copy }]);
  tellPeople(ctx.db, [to]);
}

/** Says yes or no to a task that the owner of its list was given: for them, and whoever may change their tasks. A no takes it out of the list. */
export function answerTask(ctx: Context, key: string, body: { yes: boolean; note: string }): Result<TaskWrittenAnswer> {
  return ctx.db.write(() => {
    const found = findTask(ctx, key);
    if (isRefusal(found)) return found;
    const { decided, task, may } = found;
    if (!may.change)
      return refuse('mayNotChange', { facts: { name: new Directory(ctx.db).name(decided.list.ownerId) } });
    const origin = task.copyOf === null ? null : taskById(ctx.db, task.copyOf);
    const list = origin && origin.removedAt === null ? listById(ctx.db, 'tasks', origin.listId) : null;
    if (!origin || !list || origin.givenTo !== decided.list.ownerId || origin.givenState !== 'asked')
      return refuse('taskNotAsked');
    const state = body.yes ? ('yes' as const) : ('no' as const);
    const said = {
      ...origin,
      givenState: state,
      givenNote: body.note || null,
      changedAt: ctx.now,
      version: origin.version + 1,
    };
    // It is said to whose it is, in the name of whom it was given to.
    writeTasks(ctx, list, body.yes ? 'task.taken' : 'task.declined', [{ before: origin, after: said }]);
    tellPeople(ctx.db, [list.ownerId, origin.changedBy]);
    if (body.yes) {
      const next = { ...task, ...authorship(ctx, decided.list), version: task.version + 1 };
      const { changes } = writeTasks(ctx, decided.list, 'task.changed', [{ before: task, after: next }]);
      return answerOf(ctx, decided, changes[0]?.after ?? null, '');
    }
    const gone = { ...task, ...authorship(ctx, decided.list), removedAt: ctx.now, version: task.version + 1 };
    writeTasks(ctx, decided.list, 'task.removed', [{ before: task, after: gone }]);
    return answerOf(ctx, decided, null, '');
  });
}
