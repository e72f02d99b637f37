import type { Connection } from '../db/index.ts';
import { type Calendar, calendarById, calendarByKey, calendarsOf } from './calendars.ts';
import { type AddressBook, type Folder, listById, listByKey, listsOf, type TaskList } from './lists.ts';

/** Whatever access can be given to: a calendar, a list of tasks, an address book or a folder of messages. What was taken away is none. */
export type Shareable = Calendar | AnyList;
type AnyList = TaskList | AddressBook | Folder;

export const shareableByKey = (db: Connection, key: string): Shareable | null =>
  calendarByKey(db, key) ?? (listByKey(db, null, key) as AnyList | null);

export const shareableById = (db: Connection, id: number): Shareable | null =>
  calendarById(db, id) ?? (listById(db, null, id) as AnyList | null);

/** What something shared is called: empty for the list everybody begins with; a folder of theirs goes by what it is for. */
export const shortName = (one: Shareable): string =>
  (one.kind === 'tasks' || one.kind === 'contacts') && one.first ? '' : one.name;

/** All that somebody may give access to: their calendars, the main one first, then their lists, address books and folders. */
export const shareablesOf = (db: Connection, ownerId: number): Shareable[] => [
  ...calendarsOf(db, ownerId),
  ...(listsOf(db, null, ownerId) as AnyList[]),
];
