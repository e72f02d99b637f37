import type { NewTask, TaskPatch, TaskWire, TaskWrittenAnswer } from '@/contract/tasks.ts';
import { may as mayOnList } from '@/core/access/index.ts';
import { withoutEmpty } from '@/core/calendar/index.ts';
import { readRule } from '@/core/recurrence/index.ts';
import { type Due, nextDue, tiedDue } from '@/core/tasks/index.ts';
import { fromWall, inBounds, isZone, parseDate, parseWall, toWall } from '@/core/time/index.ts';
import { bareIdFor, newKey } from '../../ids.ts';
import { grantsSpeakingTo } from '../../repositories/grants.ts';
import { listByKey, listsById } from '../../repositories/lists.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { countTasks, reassignCopies, type StoredTask, taskByUid, tasksMadeBy } from '../../repositories/tasks.ts';
import { type Refusal, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type Context,
  type DecidedList,
  Directory,
  decideOnList,
  type FoundTask,
  findItem,
  findList,
  findTask,
  isRefusal,
  mayOnTask,
  TaskReading,
  type TaskToWrite,
  writeTasks,
} from '../deciding/index.ts';
import { answerOf } from './answer.ts';
import { giveTo, updateCopies } from './give-task.ts';

/** Tasks of one list. */
export const MOST_TASKS = 20_000;

const wrong = (fields: Record<string, string>): Refusal => refuse('badInput', { fields });

/** When something is due, as people write it: a date, or a time of a clock. Names the field that is wrong. */
function readDue(due: NewTask['due']): { readonly due: Due | null; readonly zone: string | null } | Refusal {
  if (due === null) return { due: null, zone: null };
  if (!isZone(due.zone)) return wrong({ zone: 'zone' });
  const date = parseDate(due.at);
  const wall = date === null ? parseWall(due.at) : null;
  const at = date ?? wall;
  if (at === null) return wrong({ due: 'due' });
  if (!inBounds(at)) return wrong({ due: 'dateBounds' });
  if (date !== null) return { due: { date }, zone: due.zone };
  const instant = fromWall(due.zone, at);
  return instant === null ? wrong({ due: 'clockGap' }) : { due: { instant }, zone: due.zone };
}

/** The rule by which a task comes again, in its normal form; it needs a time from which to count. */
function readRepeats(rule: string | null, due: Due | null, zone: string): string | null | Refusal {
  if (rule === null || rule.trim() === '') return null;
  if (due === null) return wrong({ repeats: 'repeatsWithoutDue' });
  const allDay = 'date' in due;
  const read = readRule(rule, allDay ? due.date : toWall(zone, due.instant), allDay ? null : zone);
  return read.kind === 'rule' ? read.text : wrong({ repeats: read.code });
}

type Tied = Pick<StoredTask, 'itemId' | 'recurrence' | 'tie' | 'tieDays'>;
const FREE: Tied = { itemId: null, recurrence: null, tie: null, tieDays: 0 };

/** What a task is to belong to: an item that the viewer sees in full, in a calendar of the same owner. */
function readTie(
  ctx: Context,
  owner: Person,
  tie: NewTask['tie'],
): { readonly tied: Tied; readonly due: Due } | null | Refusal {
  if (tie === null) return null;
  const found = findItem(ctx, tie.item);
  if (isRefusal(found) || found.decided.calendar.ownerId !== owner.id) return wrong({ tie: 'itemGone' });
  const { item, occurrence } = found;
  const series = item.seriesId ?? item.id;
  const recurrence = item.seriesId === null ? (occurrence?.recurrence ?? null) : item.recurrence;
  const { start, end } = occurrence ?? item;
  return {
    tied: { itemId: series, recurrence, tie: tie.as, tieDays: tie.days },
    due: tiedDue({ start, end, allDay: item.allDay }, tie.as, tie.days, owner.zone),
  };
}

const ownerOf = (ctx: Context, { list }: DecidedList): Person => personById(ctx.db, list.ownerId) ?? ctx.viewer;

/** Adds a task to a list, in its owner's name. */
export function addTask(ctx: Context, key: string, input: NewTask): Result<TaskWrittenAnswer> {
  return ctx.db.write(() => {
    const decided = findList(ctx, 'tasks', key);
    if (isRefusal(decided)) return decided;
    const { list, decision } = decided;
    if (!mayOnList(decision).add)
      return refuse('mayNotAdd', { facts: { name: new Directory(ctx.db).name(list.ownerId) } });
    const draft = draftTask(ctx, decided, input);
    if ('ok' in draft) return draft;
    const full = noRoom(ctx, decided, 1);
    if (full) return full;
    const { changes, undo } = writeTasks(ctx, list, 'task.added', [{ before: null, after: draft }]);
    return answerOf(ctx, decided, changes[0]?.after ?? null, undo);
  });
}

/** Why a list has no room for so many more tasks; `null` where it has. */
const noRoom = (ctx: Context, { list }: DecidedList, more: number): Refusal | null =>
  countTasks(ctx.db, list.id) + more > MOST_TASKS ? refuse('listFull', { facts: { most: MOST_TASKS } }) : null;

/** A task as it was read from what somebody typed, checked. */
function draftTask(ctx: Context, decided: DecidedList, input: NewTask): Omit<StoredTask, 'id'> | Refusal {
  const { due: dueText, repeats, tie, ...fields } = input;
  const owner = ownerOf(ctx, decided);
  const read = readDue(dueText);
  if ('ok' in read) return read;
  const tied = readTie(ctx, owner, tie);
  if (tied && 'ok' in tied) return tied;
  const due = tied?.due ?? read.due;
  const zone = tied ? owner.zone : (read.zone ?? owner.zone);
  const rule = tied && repeats ? wrong({ repeats: 'repeatsWithItem' }) : readRepeats(repeats, due, zone);
  if (rule !== null && typeof rule !== 'string') return rule;
  const own = authorship(ctx, decided.list);
  return {
    ...NEW,
    ...withoutEmpty(fields),
    ...(tied?.tied ?? FREE),
    key: newKey(),
    uid: `${newKey()}@paramo`,
    listId: decided.list.id,
    due,
    zone,
    rule,
    ...own,
    createdBy: own.changedBy,
    createdFor: own.changedFor,
    createdAt: own.changedAt,
  };
}

/** What a new task begins with beside what is said of it. */
export const NEW = {
  doneAt: null,
  timeItemId: null,
  givenTo: null,
  givenState: null,
  givenNote: null,
  copyOf: null,
  version: 1,
  removedAt: null,
  kept: [],
} as const satisfies Partial<StoredTask>;

/**
 * Changes the touched fields of a task. What is done and repeats comes again, as a task of its own; what somebody was given changes with it. Whoever
 * was given it themselves says only whether it is done, sets time aside for it, or files it: its words are whose it came from. `unmodelled` is what a program says of it that isn't modelled.
 */
export function changeTask(
  ctx: Context,
  key: string,
  patch: TaskPatch,
  unmodelled?: StoredTask['kept'],
): Result<TaskWrittenAnswer> {
  return ctx.db.write(() => {
    const found = findTask(ctx, key);
    if (isRefusal(found)) return found;
    const { decided, task } = found;
    const { list } = decided;
    if (!found.may.change) return refuse('mayNotChange', { facts: { name: new Directory(ctx.db).name(list.ownerId) } });
    if (task.version !== patch.version)
      return refuse('changedMeanwhile', { data: new TaskReading(ctx, decided).view(task) });
    if (patch.list !== undefined && patch.list !== list.key) return changeAndMove(ctx, found, patch, patch.list);
    const fields = withoutEmpty(patch.fields);
    const ofGiver = Object.keys(fields).some((name) => name !== 'visibility' && name !== 'categories');
    if (
      task.copyOf !== null &&
      (ofGiver || patch.due !== undefined || patch.repeats !== undefined || patch.give !== undefined)
    )
      return refuse('taskOfGiver', { facts: { name: new Directory(ctx.db).name(task.createdFor) } });
    const changed = changedBy(ctx, decided, task, { ...patch, fields });
    if ('ok' in changed) return changed;
    const next = unmodelled === undefined ? changed : { ...changed, kept: unmodelled };
    const again = next.doneAt !== null && task.doneAt === null ? comesAgain(ctx, decided, next) : null;
    const given = patch.give === undefined ? null : giveTo(ctx, decided, next, patch.give);
    if (given && 'ok' in given) return given;
    const writes: TaskToWrite[] = [
      { before: task, after: given ? given.task : again ? { ...next, rule: null } : next },
    ];
    if (again) writes.push({ before: null, after: again });
    const verb = next.doneAt !== null && task.doneAt === null ? 'task.done' : 'task.changed';
    const { changes, undo } = writeTasks(ctx, list, verb, writes);
    const after = changes[0]?.after ?? null;
    if (after) updateCopies(ctx, task, after);
    return answerOf(ctx, decided, after, undo);
  });
}

/** A task with what a patch changes of it, or the refusal that names the field. */
function changedBy(ctx: Context, decided: DecidedList, task: StoredTask, patch: TaskPatch): StoredTask | Refusal {
  const owner = ownerOf(ctx, decided);
  const read = patch.due === undefined ? { due: task.due, zone: task.zone } : readDue(patch.due);
  if ('ok' in read) return read;
  const tied = patch.tie === undefined ? undefined : readTie(ctx, owner, patch.tie);
  if (tied && 'ok' in tied) return tied;
  // A time of its own takes a task off its item's.
  const free = patch.due !== undefined && !tied;
  const due = tied ? tied.due : read.due;
  const zone = read.zone ?? task.zone;
  const ties: Tied = tied ? tied.tied : tied === null || free ? FREE : task;
  const { itemId, recurrence, tie, tieDays } = ties;
  const wantedRule = patch.repeats === undefined ? (due === null ? null : task.rule) : patch.repeats;
  const rule =
    tie !== null && wantedRule !== null && wantedRule !== ''
      ? wrong({ repeats: 'repeatsWithItem' })
      : readRepeats(wantedRule, due, zone);
  if (rule !== null && typeof rule !== 'string') return rule;
  const doneAt = patch.done === undefined ? task.doneAt : patch.done ? (task.doneAt ?? ctx.now) : null;
  return {
    ...task,
    ...patch.fields,
    ...authorship(ctx, decided.list),
    itemId,
    recurrence,
    tie,
    tieDays,
    due,
    zone,
    rule,
    doneAt,
    version: task.version + 1,
  } as StoredTask;
}

/** What a repeated task comes again as, once it is done; `null` where it doesn't. */
function comesAgain(ctx: Context, decided: DecidedList, task: StoredTask): Omit<StoredTask, 'id'> | null {
  if (task.rule === null || task.due === null) return null;
  const next = nextDue(task.due, { kind: 'rule', text: task.rule }, task.zone);
  if (!next) return null;
  const { id: _id, ...rest } = task;
  return {
    ...rest,
    ...NEW,
    key: newKey(),
    uid: `${newKey()}@paramo`,
    due: next.due,
    rule: next.rule,
    kept: task.kept,
    createdAt: ctx.now,
    ...authorship(ctx, decided.list),
  };
}

/** Makes what else a patch changes, then puts the task into another list: both, or neither. */
function changeAndMove(ctx: Context, found: FoundTask, patch: TaskPatch, to: string): Result<TaskWrittenAnswer> {
  const { list: _list, version: _version, fields, ...others } = patch;
  if (Object.keys({ ...fields, ...others }).length === 0) return moveTask(ctx, found, to);
  const changed = changeTask(ctx, found.task.key, { ...patch, list: undefined });
  const now = changed.ok ? findTask(ctx, found.task.key) : changed;
  return isRefusal(now) ? now : moveTask(ctx, now, to);
}

/** Puts a task into another list of the same owner's, for whoever may take it out of the one and add to the other. */
function moveTask(ctx: Context, { decided, task, may }: FoundTask, to: string): Result<TaskWrittenAnswer> {
  const target = listByKey(ctx.db, 'tasks', to);
  const there = target && decideOnList(ctx, target);
  if (!target || !there || there.decision.rights.sight === 'nothing' || target.ownerId !== decided.list.ownerId)
    return wrong({ list: 'listGone' });
  const name = new Directory(ctx.db).name(target.ownerId);
  if (!may.remove) return refuse('mayNotRemove', { facts: { name } });
  if (!there.decision.rights.add) return refuse('mayNotAdd', { facts: { name } });
  const full = noRoom(ctx, there, 1);
  if (full) return full;
  const { id: _id, ...rest } = task;
  // In one list there is one of a name: where a file brought the same into both, this one is another there.
  const uid = taskByUid(ctx.db, target.id, task.uid) ? `${newKey()}@paramo` : task.uid;
  const moved = {
    ...rest,
    ...authorship(ctx, target),
    key: newKey(),
    uid,
    listId: target.id,
    version: task.version + 1,
  };
  const gone = { ...task, ...authorship(ctx, target), removedAt: ctx.now, version: task.version + 1 };
  // Each list has a trail of its own: nobody reads in one what only the other may show.
  writeTasks(ctx, decided.list, 'task.moved', [{ before: task, after: gone }]);
  const { changes } = writeTasks(ctx, target, 'task.movedHere', [{ before: null, after: moved }]);
  for (const { after } of changes) reassignCopies(ctx.db, task.id, after.id);
  return answerOf(ctx, there, changes[0]?.after ?? null, '');
}

/** Removes what may be removed at whatever sight it is seen, by the id it is seen under. */
export function removeTask(
  ctx: Context,
  id: string,
  query: { version?: number | undefined },
): Result<TaskWrittenAnswer> {
  return ctx.db.write(() => {
    const found = findRemovable(ctx, id);
    if (isRefusal(found)) return found;
    const { decided, task, may } = found;
    if (!may.remove)
      return refuse('mayNotRemove', { facts: { name: new Directory(ctx.db).name(decided.list.ownerId) } });
    const view = new TaskReading(ctx, decided).view(task) as TaskWire;
    const full = view.version !== undefined;
    if (full && query.version === undefined) return wrong({ version: 'unclear' });
    if (full && query.version !== task.version) return refuse('changedMeanwhile', { data: view });
    const gone = { ...task, ...authorship(ctx, decided.list), removedAt: ctx.now, version: task.version + 1 };
    const { undo } = writeTasks(ctx, decided.list, 'task.removed', [{ before: task, after: gone }]);
    updateCopies(ctx, task, gone);
    return answerOf(ctx, decided, null, undo);
  });
}

/** Of what somebody made, so much is looked through for an id they see below full. */
const MOST_MADE = 2000;

function findRemovable(ctx: Context, id: string): FoundTask | Refusal {
  const found = findTask(ctx, id);
  if (!isRefusal(found)) return found;
  for (const list of listsById(ctx.db, 'tasks', [...grantsSpeakingTo(ctx.db, ctx.viewer.id).keys()])) {
    const decided = decideOnList(ctx, list);
    const { sight, remove } = decided.decision.rights;
    if (sight === 'nothing' || sight === 'full' || remove === 'none') continue;
    const task = tasksMadeBy(ctx.db, list.id, ctx.viewer.id, MOST_MADE).find(
      (one) => bareIdFor(ctx.viewer.id, one.key) === id,
    );
    if (task && new TaskReading(ctx, decided).view(task))
      return { decided, task, may: mayOnTask(ctx, decided.decision, task) };
  }
  return found;
}
