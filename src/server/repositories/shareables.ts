import type { Connection } from '../db/index.ts';
import { type Calendar, calendarById, calendarByKey, calendarsOf } from './calendars.ts';
import { type AddressBook, listById, listByKey, listsOf, type TaskList } from './lists.ts';

/** Whatever access can be given to: a calendar, a list of tasks or an address book. What was taken away is none. */
export type Shareable = Calendar | TaskList | AddressBook;
type AnyList = TaskList | AddressBook;

export const shareableByKey = (db: Connection, key: string): Shareable | null =>
  calendarByKey(db, key) ?? (listByKey(db, null, key) as AnyList | null);

export const shareableById = (db: Connection, id: number): Shareable | null =>
  calendarById(db, id) ?? (listById(db, null, id) as AnyList | null);

/** All that somebody may give access to: their calendars, the main one first, then their lists and address books. */
export const shareablesOf = (db: Connection, ownerId: number): Shareable[] => [
  ...calendarsOf(db, ownerId),
  ...(listsOf(db, null, ownerId) as AnyList[]),
];
