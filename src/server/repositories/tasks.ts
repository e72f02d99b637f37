import type { UnmodelledLine } from '@/core/formats/index.ts';
import type { Due, Tie, WrittenTask } from '@/core/tasks/index.ts';
import type { Connection } from '../db/index.ts';
import { boundIn, boundTo, HOLDING, type ListReader, type ListTexts, SHOWN } from './shown.ts';

/** What somebody said to a task they were given. */
type GivenState = 'asked' | 'yes' | 'no';

/** A task as it is kept: what is written of it, by the table of fields, and what comes of that. */
export interface StoredTask extends WrittenTask {
  readonly id: number;
  readonly key: string;
  readonly listId: number;
  readonly uid: string;
  readonly due: Due | null;
  /** On whose clock it repeats and its day ends. */
  readonly zone: string;
  readonly doneAt: number | null;
  readonly rule: string | null;
  /** The item it belongs to, of a series at which of its occurrences (its wall-clock text), and how; due so many days before or after it. */
  readonly itemId: number | null;
  readonly recurrence: string | null;
  readonly tie: Tie | null;
  readonly tieDays: number;
  /** The item that is the time set aside for it. */
  readonly timeItemId: number | null;
  /** To whom it was given to do, what they said and with which words. */
  readonly givenTo: number | null;
  readonly givenState: GivenState | null;
  readonly givenNote: string | null;
  /** Of a task somebody was given: the one it is of, in the list of whom it came from. */
  readonly copyOf: number | null;
  readonly version: number;
  readonly createdBy: number;
  readonly createdFor: number;
  readonly createdAt: number;
  readonly changedBy: number;
  readonly changedFor: number;
  readonly changedAt: number;
  readonly removedAt: number | null;
  /** What a file said of it that isn't modelled. */
  readonly kept: readonly UnmodelledLine[];
}

interface Row extends Omit<StoredTask, 'due' | 'categories' | 'kept'> {
  readonly dueDate: number | null;
  readonly dueAt: number | null;
  readonly categories: string;
  readonly kept: string;
}

/** Columns by the field each holds. */
const COLUMNS = {
  key: 'key',
  listId: 'list_id',
  uid: 'uid',
  title: 'title',
  dueDate: 'due_date',
  dueAt: 'due_at',
  zone: 'zone',
  doneAt: 'done_at',
  rule: 'rule',
  itemId: 'item_id',
  recurrence: 'recurrence',
  tie: 'tie',
  tieDays: 'tie_days',
  timeItemId: 'time_item_id',
  givenTo: 'given_to',
  givenState: 'given_state',
  givenNote: 'given_note',
  copyOf: 'copy_of',
  notes: 'notes',
  link: 'link',
  categories: 'categories',
  importance: 'importance',
  visibility: 'visibility',
  version: 'version',
  createdBy: 'created_by',
  createdFor: 'created_for',
  createdAt: 'created_at',
  changedBy: 'changed_by',
  changedFor: 'changed_for',
  changedAt: 'changed_at',
  removedAt: 'removed_at',
  kept: 'kept',
} as const satisfies Record<Exclude<keyof Row, 'id'>, string>;
const NAMES = Object.keys(COLUMNS) as (keyof typeof COLUMNS)[];
const SELECT = `SELECT id, ${NAMES.map((name) => `${COLUMNS[name]} AS ${name}`).join(', ')} FROM task`;

/** Where what has no time stands among what has one: behind all of it. */
const LAST = Number.MAX_SAFE_INTEGER;

const decode = ({ dueDate, dueAt, categories, kept, ...row }: Row): StoredTask => ({
  ...row,
  due: dueDate !== null ? { date: dueDate } : dueAt !== null ? { instant: dueAt } : null,
  categories: categories === '[]' ? [] : JSON.parse(categories),
  kept: kept === '[]' ? [] : JSON.parse(kept),
});

/** Where something due stands among others. */
const dueOrder = (due: Due | null): number => (due === null ? LAST : 'date' in due ? due.date : due.instant);

const encode = ({ due, categories, kept, ...task }: Omit<StoredTask, 'id'>) => ({
  ...task,
  dueDate: due && 'date' in due ? due.date : null,
  dueAt: due && 'instant' in due ? due.instant : null,
  categories: JSON.stringify(categories),
  kept: JSON.stringify(kept),
  dueOrder: dueOrder(due),
});

const INSERT = `INSERT INTO task (due_order, ${NAMES.map((name) => COLUMNS[name]).join(', ')}) VALUES (@dueOrder, ${NAMES.map((name) => `@${name}`).join(', ')})`;
const UPDATE = `UPDATE task SET due_order = @dueOrder, ${NAMES.map((name) => `${COLUMNS[name]} = @${name}`).join(', ')} WHERE id = @id`;

export function insertTask(db: Connection, task: Omit<StoredTask, 'id'>): StoredTask {
  return { ...task, id: db.run(INSERT, encode(task)) };
}

export function updateTask(db: Connection, task: StoredTask): void {
  db.run(UPDATE, { ...encode(task), id: task.id });
}

export function taskByKey(db: Connection, key: string): StoredTask | null {
  const row = db.get<Row>(`${SELECT} WHERE key = ?`, key);
  return row ? decode(row) : null;
}

export function taskById(db: Connection, id: number): StoredTask | null {
  const row = db.get<Row>(`${SELECT} WHERE id = ?`, id);
  return row ? decode(row) : null;
}

/** A task of a list by what it is called outside. */
export function taskByUid(db: Connection, listId: number, uid: string): StoredTask | null {
  const row = db.get<Row>(`${SELECT} WHERE list_id = ? AND uid = ? AND removed_at IS NULL`, listId, uid);
  return row ? decode(row) : null;
}

/** Behind which task a page goes on. */
export interface TaskMark {
  readonly order: number;
  readonly id: number;
}

/** Open tasks of a list, what is due first first and what has no time last; at most `most`, after a mark. */
export const openTasks = (
  db: Connection,
  listId: number,
  reader: ListReader,
  after: TaskMark | null,
  most: number,
): StoredTask[] =>
  db
    .all<Row>(
      `${SELECT} WHERE list_id = @listId AND done_at IS NULL AND removed_at IS NULL AND (due_order, id) > (@order, @id)
         AND ${SHOWN} ORDER BY due_order, id LIMIT @most`,
      { listId, order: after?.order ?? -LAST, id: after?.id ?? 0, most, ...boundTo(reader) },
    )
    .map(decode);

/** Tasks of a list that are done, the latest first; at most `most`, after a mark. */
export const doneTasks = (
  db: Connection,
  listId: number,
  reader: ListReader,
  after: TaskMark | null,
  most: number,
): StoredTask[] =>
  db
    .all<Row>(
      `${SELECT} WHERE list_id = @listId AND done_at IS NOT NULL AND removed_at IS NULL AND (done_at, id) < (@order, @id)
         AND ${SHOWN} ORDER BY done_at DESC, id DESC LIMIT @most`,
      { listId, order: after?.order ?? LAST, id: after?.id ?? LAST, most, ...boundTo(reader) },
    )
    .map(decode);

/** The mark of a task, for the page after it. */
export const markOf = (task: StoredTask): TaskMark => ({ order: task.doneAt ?? dueOrder(task.due), id: task.id });

/** Whether any open task of somebody's is due before an instant, whoever sees it. */
export const hasTasksDue = (db: Connection, ownerId: number, before: number): boolean =>
  db.get(
    `SELECT 1 FROM task t WHERE t.list_id IN (SELECT id FROM collection WHERE owner_id = ? AND kind = 'tasks')
       AND t.done_at IS NULL AND t.removed_at IS NULL AND t.due_order < ? LIMIT 1`,
    ownerId,
    before,
  ) !== undefined;

/** Open tasks of a list that are due before an instant, the most pressing first: at most `most`. */
export const tasksDueBefore = (
  db: Connection,
  listId: number,
  reader: ListReader,
  before: number,
  most: number,
): StoredTask[] =>
  db
    .all<Row>(
      `${SELECT} WHERE list_id = @listId AND done_at IS NULL AND removed_at IS NULL AND due_order < @before
         AND ${SHOWN} ORDER BY due_order, id LIMIT @most`,
      { listId, before, most, ...boundTo(reader) },
    )
    .map(decode);

/** How many open tasks of a list somebody is shown; counted up to `most`. */
export const countOpen = (db: Connection, listId: number, reader: ListReader, most: number): number =>
  db.get<{ n: number }>(
    `SELECT count(*) AS n FROM (SELECT 1 FROM task WHERE list_id = @listId AND done_at IS NULL AND removed_at IS NULL
       AND ${SHOWN} LIMIT @most)`,
    { listId, most, ...boundTo(reader) },
  )?.n ?? 0;

/** How many tasks wait in somebody's lists for their yes. */
export const countGivenToAnswer = (db: Connection, ownerId: number): number =>
  db.get<{ n: number }>(
    `SELECT count(*) AS n FROM task o CROSS JOIN task c ON c.copy_of = o.id AND c.removed_at IS NULL AND c.done_at IS NULL
     WHERE o.given_to = ? AND o.given_state = 'asked' AND o.removed_at IS NULL`,
    ownerId,
  )?.n ?? 0;

/** How many tasks a list has, done ones too. */
export const countTasks = (db: Connection, listId: number): number =>
  db.get<{ n: number }>('SELECT count(*) AS n FROM task WHERE list_id = ? AND removed_at IS NULL', listId)?.n ?? 0;

/** Tasks that belong to an item: at most `most`. */
export const tasksOfItem = (db: Connection, itemId: number, most: number): StoredTask[] =>
  db
    .all<Row>(`${SELECT} WHERE item_id = ? AND removed_at IS NULL ORDER BY due_order, id LIMIT ?`, itemId, most)
    .map(decode);

/** Tasks of one list that belong to an item (of a series to one occurrence or to all of it), as far as somebody is shown them: at most `most`. */
export const tasksOfItemIn = (
  db: Connection,
  listId: number,
  { itemId, recurrence }: { readonly itemId: number; readonly recurrence: string | null },
  reader: ListReader,
  most: number,
): StoredTask[] =>
  db
    .all<Row>(
      `${SELECT} WHERE item_id = @itemId AND list_id = @listId AND removed_at IS NULL AND ${SHOWN}
         AND (@recurrence IS NULL OR recurrence IS NULL OR recurrence = @recurrence)
         ORDER BY done_at IS NOT NULL, due_order, id LIMIT @most`,
      { listId, itemId, recurrence, most, ...boundTo(reader) },
    )
    .map(decode);

/** What somebody was given of a task, where it still stands in their list. */
export function copyOfTask(db: Connection, taskId: number): StoredTask | null {
  const row = db.get<Row>(`${SELECT} WHERE copy_of = ? AND removed_at IS NULL ORDER BY id DESC LIMIT 1`, taskId);
  return row ? decode(row) : null;
}

/** What was given of a task is of another row from now on. */
export const reassignCopies = (db: Connection, taskId: number, to: number): number =>
  db.run('UPDATE task SET copy_of = ? WHERE copy_of = ?', to, taskId);

/** Tasks somebody made in a list, which they may remove at whatever sight they have of them; the latest first, at most `most`. */
export const tasksMadeBy = (db: Connection, listId: number, personId: number, most: number): StoredTask[] =>
  db
    .all<Row>(
      `${SELECT} WHERE list_id = ? AND created_by = ? AND removed_at IS NULL ORDER BY id DESC LIMIT ?`,
      listId,
      personId,
      most,
    )
    .map(decode);

/** Every task of a list that somebody is shown, in the order they were made: at most `most`. */
export const tasksOfList = (db: Connection, listId: number, reader: ListReader, most: number): StoredTask[] =>
  db
    .all<Row>(`${SELECT} WHERE list_id = @listId AND removed_at IS NULL AND ${SHOWN} ORDER BY id LIMIT @most`, {
      listId,
      most,
      ...boundTo(reader),
    })
    .map(decode);

/**
 * Tasks of a list whose texts hold all of some words, each as the beginning of one of theirs; open ones first, by when they are due; at most
 * `most`. Private ones are looked through for whoever is shown them.
 */
export function tasksHolding(
  db: Connection,
  listIds: readonly number[],
  words: readonly string[],
  texts: ListTexts,
  reader: ListReader,
  most: number,
): StoredTask[] {
  return db
    .all<Row>(
      `${SELECT} WHERE id IN (SELECT rowid FROM task_text WHERE task_text MATCH @match) AND removed_at IS NULL AND ${SHOWN}
         AND ${HOLDING} ORDER BY done_at IS NOT NULL, due_order, id LIMIT @most`,
      { ...boundIn(listIds, words, texts), most, ...boundTo(reader) },
    )
    .map(decode);
}
