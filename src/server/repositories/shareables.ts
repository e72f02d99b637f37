import type { FirstCollection } from '@/core/collection/index.ts';
import type { Connection } from '../db/index.ts';
import { type Calendar, calendarById, calendarByKey, calendarsById, calendarsOf, mainCalendarOf } from './calendars.ts';
import {
  type AddressBook,
  type Folder,
  findFolder,
  listById,
  listByKey,
  listsById,
  listsOf,
  type TaskList,
} from './lists.ts';

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

/** Some of them by their row numbers, calendars first. */
export const shareablesById = (db: Connection, ids: readonly number[]): Shareable[] => [
  ...calendarsById(db, ids),
  ...(listsById(db, null, ids) as AnyList[]),
];

/** One of those that somebody began with; `null` where they have none, as somebody outside and a room. */
export function firstOf(db: Connection, ownerId: number, first: FirstCollection): Shareable | null {
  if (first === 'calendar') return mainCalendarOf(db, ownerId);
  if (first !== 'tasks' && first !== 'contacts') return findFolder(db, ownerId, first);
  return (listsOf(db, first, ownerId).find((list) => list.first) as AnyList | undefined) ?? null;
}

/** Which of those that its owner began with something is; `null` for every further one. */
export function firstCollectionOf(one: Shareable): FirstCollection | null {
  if (one.kind === 'calendar') return one.main ? 'calendar' : null;
  if (one.kind === 'folder') return one.role;
  return one.first ? one.kind : null;
}
