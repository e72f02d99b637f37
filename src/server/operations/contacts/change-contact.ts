import type { ContactPatch, ContactWire, ContactWrittenAnswer, NewContact } from '@/contract/contacts.ts';
import { may as mayOnList } from '@/core/access/index.ts';
import { pick, withoutEmpty } from '@/core/calendar/index.ts';
import { WRITTEN_CONTACT_FIELDS } from '@/core/contacts/index.ts';
import { bareIdFor, newKey } from '../../ids.ts';
import { contactByKey, contactsMadeBy, type StoredContact, weighBook } from '../../repositories/contacts.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  authorship,
  ContactReading,
  type Context,
  type DecidedList,
  Directory,
  decideOnList,
  type FoundContact,
  findContact,
  findList,
  isRefusal,
  mayOnContact,
  writeContacts,
} from '../deciding/index.ts';
import { sharedWith } from '../lists/index.ts';

/** Contacts of one address book, and bytes of the lines their cards keep, pictures among them. */
export const MOST_CONTACTS = 20_000;
const MOST_BYTES = 40_000_000;
/** Of what somebody made, so much is looked through for an id they see below full. */
const MOST_MADE = 2000;

/** What an act wrote, as the one who did it sees it now. */
export const answerOf = (
  ctx: Context,
  decided: DecidedList<'contacts'>,
  contact: StoredContact | null,
  undo: string,
): Result<ContactWrittenAnswer> =>
  ok({
    contact: contact && contact.removedAt === null ? new ContactReading(ctx, decided).view(contact) : null,
    undo,
  });

const nameOf = (ctx: Context, { list }: DecidedList<'contacts'>) => ({
  name: new Directory(ctx.db).name(list.ownerId),
});

/** Why a book has no room for some more contacts, some of which take another’s place; `null` where it has. */
export function noRoom(
  ctx: Context,
  listId: number,
  more: readonly Pick<StoredContact, 'kept'>[],
  instead: readonly Pick<StoredContact, 'kept'>[] = [],
): Refusal | null {
  const { contacts, bytes } = weighBook(ctx.db, listId);
  if (contacts + more.length - instead.length > MOST_CONTACTS)
    return refuse('listFull', { facts: { most: MOST_CONTACTS } });
  const heavier = sizeOf(more) - sizeOf(instead);
  return heavier > 0 && bytes + heavier > MOST_BYTES
    ? refuse('bookFull', { facts: { most: MOST_BYTES / 1_000_000 } })
    : null;
}

const sizeOf = (contacts: readonly Pick<StoredContact, 'kept'>[]): number =>
  contacts.reduce(
    (sum, { kept }) => kept.reduce((lines, { line, was = '' }) => lines + line.length + was.length, sum),
    0,
  );

/** A book that the viewer may add to now, with room for one more and the lines of its card. */
function findToAdd(
  ctx: Context,
  key: string,
  unmodelled: StoredContact['kept'] = [],
): DecidedList<'contacts'> | Refusal {
  const decided = findList(ctx, 'contacts', key);
  if (isRefusal(decided)) return decided;
  if (!mayOnList(decided.decision).add) return refuse('mayNotAdd', { facts: nameOf(ctx, decided) });
  return noRoom(ctx, decided.list.id, [{ kept: unmodelled }]) ?? decided;
}

/** A new contact of a book, as it is first kept. */
export function freshContact(
  ctx: Context,
  { list }: Pick<DecidedList<'contacts'>, 'list'>,
  fields: NewContact,
  card: Partial<Pick<StoredContact, 'uid' | 'cardVersion' | 'kept'>> = {},
): Omit<StoredContact, 'id'> {
  const own = authorship(ctx, list);
  return {
    ...fields,
    key: newKey(),
    uid: `urn:paramo:${newKey()}`,
    cardVersion: '4.0',
    kept: [],
    ...card,
    touched: false,
    listId: list.id,
    version: 1,
    removedAt: null,
    ...own,
    createdBy: own.changedBy,
    createdFor: own.changedFor,
    createdAt: own.changedAt,
  };
}

/** Adds a contact to an address book, in its owner's name. */
export function addContact(ctx: Context, key: string, input: NewContact): Result<ContactWrittenAnswer> {
  return ctx.db.write(() => {
    const decided = findToAdd(ctx, key);
    if (isRefusal(decided)) return decided;
    const after = freshContact(ctx, decided, withoutEmpty(input));
    const { changes, undo } = writeContacts(ctx, decided.list, 'contact.added', [{ before: null, after }]);
    return answerOf(ctx, decided, changes[0]?.after ?? null, undo);
  });
}

/** One contact that the viewer sees in full. */
export function readContact(ctx: Context, key: string): Result<ContactWire> {
  const found = findContact(ctx, key);
  if (isRefusal(found)) return found;
  return ok(new ContactReading(ctx, found.decided).view(found.contact) as ContactWire);
}

/** Changes the touched fields of a contact. The lines of its card that say something else now go; `card` is a card that a program sends in its place. */
export function changeContact(
  ctx: Context,
  key: string,
  patch: ContactPatch,
  card?: Pick<StoredContact, 'cardVersion' | 'kept'>,
): Result<ContactWrittenAnswer> {
  return ctx.db.write(() => {
    const found = findContact(ctx, key);
    if (isRefusal(found)) return found;
    const { decided, contact, may } = found;
    if (!may.change) return refuse('mayNotChange', { facts: nameOf(ctx, decided) });
    if (contact.version !== patch.version)
      return refuse('changedMeanwhile', { data: new ContactReading(ctx, decided).view(contact) });
    const full = card ? noRoom(ctx, decided.list.id, [card], [contact]) : null;
    if (full) return full;
    const fields = withoutEmpty(patch.fields) as Partial<NewContact>;
    const after = changedContact(ctx, found, { ...fields, ...card });
    const { changes, undo } = writeContacts(ctx, decided.list, 'contact.changed', [{ before: contact, after }]);
    return answerOf(ctx, decided, changes[0]?.after ?? null, undo);
  });
}

/** A contact with other fields, changed by the viewer. */
export const changedContact = (
  ctx: Context,
  { decided, contact }: Pick<FoundContact, 'decided' | 'contact'>,
  fields: Partial<StoredContact>,
): StoredContact => ({
  ...contact,
  ...fields,
  ...authorship(ctx, decided.list),
  touched: true,
  version: contact.version + 1,
});

/** Removes what may be removed at whatever sight it is seen, by the id it is seen under. */
export function removeContact(
  ctx: Context,
  id: string,
  query: { version?: number | undefined },
): Result<ContactWrittenAnswer> {
  return ctx.db.write(() => {
    const found = findRemovable(ctx, id);
    if (isRefusal(found)) return found;
    const { decided, contact, may } = found;
    if (!may.remove) return refuse('mayNotRemove', { facts: nameOf(ctx, decided) });
    const view = new ContactReading(ctx, decided).view(contact);
    const full = view?.version !== undefined;
    if (full && query.version === undefined) return refuse('badInput', { fields: { version: 'unclear' } });
    if (full && query.version !== contact.version) return refuse('changedMeanwhile', { data: view });
    const after = { ...changedContact(ctx, found, {}), removedAt: ctx.now };
    const { undo } = writeContacts(ctx, decided.list, 'contact.removed', [{ before: contact, after }]);
    return answerOf(ctx, decided, null, undo);
  });
}

function findRemovable(ctx: Context, id: string): FoundContact | Refusal {
  const found = findContact(ctx, id);
  if (!isRefusal(found)) return found;
  for (const list of sharedWith(ctx, 'contacts')) {
    const decided = decideOnList(ctx, list);
    const { sight, remove } = decided.decision.rights;
    if (sight === 'nothing' || sight === 'full' || remove === 'none') continue;
    const made = contactsMadeBy(ctx.db, list.id, ctx.viewer.id, MOST_MADE).find(
      (one) => bareIdFor(ctx.viewer.id, one.key) === id,
    );
    const contact = made && contactByKey(ctx.db, made.key);
    if (contact && new ContactReading(ctx, decided).view(contact))
      return { decided, contact, may: mayOnContact(ctx, decided.decision, contact) };
  }
  return found;
}

/** Copies a contact that the viewer sees in full into a book they may add to: a contact of its own from then on, with its card. */
export function copyContact(ctx: Context, key: string, body: { book: string }): Result<ContactWrittenAnswer> {
  return ctx.db.write(() => {
    const found = findContact(ctx, key);
    if (isRefusal(found)) return found;
    const there = findToAdd(ctx, body.book, found.contact.kept);
    if (isRefusal(there)) return there;
    const { cardVersion, kept, ...contact } = found.contact;
    // What is private there stays so: nobody learns of it by its copy.
    const visibility = contact.visibility === 'private' ? 'private' : 'follow';
    const fields = { ...pick(contact, WRITTEN_CONTACT_FIELDS), visibility } as const;
    const after = freshContact(ctx, there, fields, { cardVersion, kept });
    const { changes, undo } = writeContacts(ctx, there.list, 'contact.added', [{ before: null, after }]);
    return answerOf(ctx, there, changes[0]?.after ?? null, undo);
  });
}
