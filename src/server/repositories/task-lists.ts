import type { Connection } from '../db/index.ts';
import { newKey } from '../ids.ts';
import { handOn, insertCollection, type SharedCollection } from './collections.ts';

/** A list of tasks: what is shared of them. */
export interface TaskList extends SharedCollection {
  readonly kind: 'tasks';
  /** It is the list its owner began with, which screens name in the reader's language. */
  readonly first: boolean;
}

interface Row {
  id: number;
  key: string;
  owner_id: number;
  name: string;
  suspended: 0 | 1;
  first: 0 | 1;
}

/** What the list everybody begins with is called where nothing names it in a language. */
const FIRST_LIST = 'Tasks';

const SELECT = `SELECT c.id, c.key, c.owner_id, c.name,
  EXISTS (SELECT 1 FROM suspension s WHERE s.collection_id = c.id AND s.recorded_until IS NULL) AS suspended, l.first
  FROM collection c JOIN task_list l ON l.id = c.id AND l.removed_at IS NULL`;

const decode = (row: Row): TaskList => ({
  kind: 'tasks',
  id: row.id,
  key: row.key,
  ownerId: row.owner_id,
  name: row.name,
  main: false,
  suspended: row.suspended === 1,
  first: row.first === 1,
});

export function taskListByKey(db: Connection, key: string): TaskList | null {
  const row = db.get<Row>(`${SELECT} WHERE c.key = ?`, key);
  return row ? decode(row) : null;
}

export function taskListById(db: Connection, id: number): TaskList | null {
  const row = db.get<Row>(`${SELECT} WHERE c.id = ?`, id);
  return row ? decode(row) : null;
}

/** Somebody's lists, the one they began with first. */
export const taskListsOf = (db: Connection, ownerId: number): TaskList[] =>
  db.all<Row>(`${SELECT} WHERE c.owner_id = ? AND c.kind = 'tasks' ORDER BY l.first DESC, c.name`, ownerId).map(decode);

/** Some lists by their row numbers, in no order. */
export const taskListsById = (db: Connection, ids: readonly number[]): TaskList[] =>
  db.all<Row>(`${SELECT} WHERE c.id IN (SELECT value FROM json_each(?))`, JSON.stringify(ids)).map(decode);

/** Makes a further list for somebody. Answers its row number. */
export function insertTaskList(db: Connection, ownerId: number, name: string, first = false): number {
  const id = insertCollection(db, { key: newKey(), kind: 'tasks', ownerId, name, main: false });
  db.run('INSERT INTO task_list (id, first) VALUES (?, ?)', id, Number(first));
  return id;
}

/** The list somebody began with, made where they have none. */
export function firstListOf(db: Connection, ownerId: number): TaskList {
  const first = taskListsOf(db, ownerId).find((list) => list.first);
  return first ?? (taskListById(db, insertTaskList(db, ownerId, FIRST_LIST, true)) as TaskList);
}

/** Hands a list on: it is a further one of its new owner's. */
export function handTaskListOn(db: Connection, id: number, ownerId: number, name: string): void {
  handOn(db, id, ownerId, name);
  db.run('UPDATE task_list SET first = 0 WHERE id = ?', id);
}

export function nameTaskList(db: Connection, id: number, name: string): void {
  db.run('UPDATE collection SET name = ? WHERE id = ?', name, id);
}

/** Takes a list away at an instant, or (`null`) brings it back. Nothing here finds one that was taken away, but `removedTaskList`. */
export function setTaskListRemoved(db: Connection, id: number, at: number | null): void {
  db.run('UPDATE task_list SET removed_at = ? WHERE id = ?', at, id);
}

/** A list that was taken away, by its key. */
export const removedTaskList = (
  db: Connection,
  key: string,
): { readonly id: number; readonly ownerId: number; readonly removedAt: number } | null =>
  db.get<{ id: number; ownerId: number; removedAt: number }>(
    `SELECT c.id, c.owner_id AS ownerId, l.removed_at AS removedAt FROM collection c JOIN task_list l ON l.id = c.id
     WHERE c.key = ? AND l.removed_at IS NOT NULL`,
    key,
  ) ?? null;
