import type { Visibility } from '../calendar/index.ts';
import type { Contact } from '../contacts/index.ts';
import type { Task } from '../tasks/index.ts';

/** What an item of any kind has beside its own fields: how far it follows its collection, and who made it. */
interface Common<P> {
  readonly visibility: Visibility;
  readonly createdBy: P;
}

/** A message of a folder. `when` is an instant as text; `attached` only says that there are attachments. */
interface Message<P> extends Common<P> {
  readonly from: string;
  readonly to: readonly string[];
  readonly when: string;
  readonly subject: string;
  readonly firstLine: string;
  readonly attached: boolean;
  readonly text: string;
  readonly attachments: readonly string[];
  readonly categories: readonly string[];
}

/** The items of each kind of collection that isn't a calendar. */
export interface OtherItems<P> {
  readonly contacts: Contact<P>;
  readonly tasks: Task<P>;
  readonly folder: Message<P>;
}
export type OtherKind = keyof OtherItems<unknown>;
