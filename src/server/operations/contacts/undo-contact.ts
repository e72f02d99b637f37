import type { WrittenAnswer } from '@/contract/items/items.ts';
import { contactById, contactByUid } from '../../repositories/contacts.ts';
import { contactStates, type TrailEntry } from '../../repositories/trail.ts';
import type { Result } from '../../result.ts';
import { type Context, mayOnContact, UNDOABLE_ON_CONTACTS, writeContacts } from '../deciding/index.ts';
import { undoInList } from '../lists/index.ts';

/** Takes back one write on contacts: what was merged are several again. */
export const undoContact = (ctx: Context, entry: TrailEntry): Result<WrittenAnswer> =>
  undoInList(ctx, entry, {
    kind: 'contacts',
    undoable: UNDOABLE_ON_CONTACTS,
    states: contactStates(entry),
    current: (id) => contactById(ctx.db, id),
    called: (list, uid) => contactByUid(ctx.db, list.id, uid),
    may: (decision, contact) => mayOnContact(ctx, decision, contact),
    write: (list, contacts) => writeContacts(ctx, list, 'contact.undone', contacts).undo,
  });
