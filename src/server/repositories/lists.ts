import type { Connection } from '../db/index.ts';
import { newKey } from '../ids.ts';
import { insertCollection, reassignCollection, type SharedCollection } from './collections.ts';

/** The kinds of collection that are kept as lists: a list of tasks, an address book, and a folder of messages. */
export type ListKind = 'tasks' | 'contacts' | 'folder';

/** The folders everybody begins with, by what they are for. */
export const FOLDER_ROLES = ['arrived', 'sent', 'drafts', 'filed'] as const;
export type FolderRole = (typeof FOLDER_ROLES)[number];

/** A list of one kind: what is shared of them. */
export interface SharedList<K extends ListKind = ListKind> extends SharedCollection {
  readonly kind: K;
  /** It is one its owner began with, which screens name in the reader's language. */
  readonly first: boolean;
  /** What a folder is for; `null` for every further one, and for other kinds. */
  readonly role: FolderRole | null;
  /** In which folder it stands. */
  readonly parentId: number | null;
}
export type TaskList = SharedList<'tasks'>;
export type AddressBook = SharedList<'contacts'>;
export type Folder = SharedList<'folder'>;

interface Row<K> {
  id: number;
  key: string;
  kind: K;
  owner_id: number;
  name: string;
  suspended: 0 | 1;
  first: 0 | 1;
  role: FolderRole | null;
  parent_id: number | null;
}

/** What the one everybody begins with is called where nothing names it in a language. */
const FIRST: Record<Exclude<ListKind, 'folder'>, string> = { tasks: 'Tasks', contacts: 'Contacts' };
const ROLE_NAMES: Record<FolderRole, string> = { arrived: 'Arrived', sent: 'Sent', drafts: 'Drafts', filed: 'Filed' };

const SELECT = `SELECT c.id, c.key, c.kind, c.owner_id, c.name,
  EXISTS (SELECT 1 FROM suspension s WHERE s.collection_id = c.id AND s.recorded_until IS NULL) AS suspended, l.first, l.role, l.parent_id
  FROM collection c JOIN shared_list l ON l.id = c.id AND l.removed_at IS NULL`;

const decode = <K extends ListKind>(row: Row<K>): SharedList<K> => ({
  kind: row.kind,
  id: row.id,
  key: row.key,
  ownerId: row.owner_id,
  name: row.name,
  main: false,
  suspended: row.suspended === 1,
  first: row.first === 1,
  role: row.role,
  parentId: row.parent_id,
});

/** Lists of a kind, or (`null`) of any, that fit a condition. */
const read = <K extends ListKind>(db: Connection, kind: K | null, where: string, ...of: (string | number)[]) =>
  db
    .all<Row<K>>(`${SELECT} WHERE ${where}`, ...of)
    .filter((row) => kind === null || row.kind === kind)
    .map(decode);

export const listByKey = <K extends ListKind>(db: Connection, kind: K | null, key: string): SharedList<K> | null =>
  read(db, kind, 'c.key = ?', key)[0] ?? null;

export const listById = <K extends ListKind>(db: Connection, kind: K | null, id: number): SharedList<K> | null =>
  read(db, kind, 'c.id = ?', id)[0] ?? null;

/** Somebody's lists, the one they began with first. */
export const listsOf = <K extends ListKind>(db: Connection, kind: K | null, ownerId: number): SharedList<K>[] =>
  kind === null
    ? read<K>(db, null, `c.owner_id = ? AND c.kind IN ('tasks', 'contacts', 'folder') ${IN_ORDER}`, ownerId)
    : read(db, kind, `c.owner_id = ? AND c.kind = ? ${IN_ORDER}`, ownerId, kind);

const IN_ORDER = `ORDER BY CASE c.kind WHEN 'tasks' THEN 0 WHEN 'contacts' THEN 1 ELSE 2 END, l.first DESC,
  CASE l.role WHEN 'arrived' THEN 0 WHEN 'sent' THEN 1 WHEN 'drafts' THEN 2 ELSE 3 END, c.name`;

/** Some lists by their row numbers, in no order. */
export const listsById = <K extends ListKind>(
  db: Connection,
  kind: K | null,
  ids: readonly number[],
): SharedList<K>[] => read(db, kind, 'c.id IN (SELECT value FROM json_each(?))', JSON.stringify(ids));

/** Makes a further list for somebody. Answers its row number. */
export function insertList(db: Connection, kind: ListKind, ownerId: number, name: string, first = false): number {
  const id = insertCollection(db, { key: newKey(), kind, ownerId, name, main: false });
  db.run('INSERT INTO shared_list (id, first) VALUES (?, ?)', id, Number(first));
  return id;
}

/** The list of a kind that somebody began with, made where they have none. */
export function firstListOf<K extends Exclude<ListKind, 'folder'>>(
  db: Connection,
  kind: K,
  ownerId: number,
): SharedList<K> {
  const first = listsOf(db, kind, ownerId).find((list) => list.first);
  return first ?? (listById(db, kind, insertList(db, kind, ownerId, FIRST[kind], true)) as SharedList<K>);
}

/** Somebody's folder of a role; `null` where it isn't there yet. */
export const findFolder = (db: Connection, ownerId: number, role: FolderRole): Folder | null =>
  read(db, 'folder', "c.owner_id = ? AND c.kind = 'folder' AND l.role = ?", ownerId, role)[0] ?? null;

/** Somebody's folder of a role, made where it isn't there yet. */
export function folderOf(db: Connection, ownerId: number, role: FolderRole): Folder {
  const found = findFolder(db, ownerId, role);
  if (found) return found;
  const id = insertList(db, 'folder', ownerId, ROLE_NAMES[role], true);
  db.run('UPDATE shared_list SET role = ? WHERE id = ?', role, id);
  return findFolder(db, ownerId, role) as Folder;
}

/** Puts a folder into another, or (`null`) beside those everybody begins with. */
export function setParent(db: Connection, id: number, parentId: number | null): void {
  db.run('UPDATE shared_list SET parent_id = ? WHERE id = ?', parentId, id);
}

/** The row numbers of all of somebody's folders, those that were taken away left out. */
export const folderIdsOf = (db: Connection, ownerId: number): number[] =>
  db
    .arrays<[number]>(
      `SELECT c.id FROM collection c JOIN shared_list l ON l.id = c.id AND l.removed_at IS NULL
       WHERE c.owner_id = ? AND c.kind = 'folder'`,
      ownerId,
    )
    .map(([id]) => id);

/** Hands a list on: it is a further one of its new owner's. */
export function reassignList(db: Connection, id: number, ownerId: number, name: string): void {
  reassignCollection(db, id, ownerId, name);
  db.run('UPDATE shared_list SET first = 0, role = NULL WHERE id = ?', id);
}

export function nameList(db: Connection, id: number, name: string): void {
  db.run('UPDATE collection SET name = ? WHERE id = ?', name, id);
}

/** Takes a list away at an instant, or (`null`) brings it back. Nothing here finds one that was taken away, but `removedList`. */
export function setListRemoved(db: Connection, id: number, at: number | null): void {
  db.run('UPDATE shared_list SET removed_at = ? WHERE id = ?', at, id);
}

/** A list that was taken away, by its key. */
export const removedList = (
  db: Connection,
  key: string,
): { readonly id: number; readonly ownerId: number; readonly removedAt: number } | null =>
  db.get<{ id: number; ownerId: number; removedAt: number }>(
    `SELECT c.id, c.owner_id AS ownerId, l.removed_at AS removedAt FROM collection c JOIN shared_list l ON l.id = c.id
     WHERE c.key = ? AND l.removed_at IS NOT NULL`,
    key,
  ) ?? null;
