import type { Connection } from '../db/index.ts';
import { type Calendar, calendarById, calendarByKey, calendarsOf } from './calendars.ts';
import { type TaskList, taskListById, taskListByKey, taskListsOf } from './task-lists.ts';

/** Whatever access can be given to: a calendar, or a list of tasks. What was taken away is none. */
export type Shareable = Calendar | TaskList;

export const shareableByKey = (db: Connection, key: string): Shareable | null =>
  calendarByKey(db, key) ?? taskListByKey(db, key);

export const shareableById = (db: Connection, id: number): Shareable | null =>
  calendarById(db, id) ?? taskListById(db, id);

/** All that somebody may give access to: their calendars, the main one first, then their lists. */
export const shareablesOf = (db: Connection, ownerId: number): Shareable[] => [
  ...calendarsOf(db, ownerId),
  ...taskListsOf(db, ownerId),
];
