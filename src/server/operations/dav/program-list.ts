import type { Connection } from '../../db/index.ts';
import { listByKey, type SharedList } from '../../repositories/lists.ts';

/** The kinds of list that a program has a standard for. Folders of messages are none: mail has its own. */
export type ProgramKind = 'tasks' | 'contacts';

/** A list of such a kind, by its key. */
export const programList = (db: Connection, key: string): SharedList<ProgramKind> | null =>
  listByKey(db, 'tasks', key) ?? listByKey(db, 'contacts', key);
