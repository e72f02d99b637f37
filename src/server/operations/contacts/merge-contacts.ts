import type { AlikeAnswer, ContactWrittenAnswer } from '@/contract/contacts.ts';
import { LIMITS } from '@/core/calendar/index.ts';
import { likelySame, mergedContact } from '@/core/contacts/index.ts';
import { inVersion, type UnmodelledLine } from '@/core/formats/index.ts';
import { contactsOf, type StoredContact } from '../../repositories/contacts.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  ContactReading,
  type Context,
  Directory,
  type FoundContact,
  findContact,
  findList,
  isRefusal,
  listReaderFor,
  writeContacts,
} from '../deciding/index.ts';
import { answerOf, changedContact, MOST_CONTACTS } from './change-contact.ts';

/** Groups of contacts that are answered, and contacts of one group. */
const MOST_GROUPS = 100;
const MOST_IN_GROUP = 20;
const MOST = { ways: 20, categories: LIMITS.categories, notes: LIMITS.notes };

/** Contacts of a book that are likely one and the same, for whoever sees all of each and may make one of them. */
export function listAlikeContacts(ctx: Context, key: string): Result<AlikeAnswer> {
  const found = findList(ctx, 'contacts', key);
  if (isRefusal(found)) return found;
  const reading = new ContactReading(ctx, found, new Directory(ctx.db));
  const rows = contactsOf(ctx.db, found.list.id, listReaderFor(ctx.viewer.id, found.decision), null, MOST_CONTACTS);
  // Only what one sees in full is held against anything: nothing is told of what one doesn't.
  const views = rows.flatMap((row) => {
    const view = reading.view(row);
    return view?.may?.change ? [{ ...row, view }] : [];
  });
  const groups = likelySame(views);
  return ok({
    groups: groups.slice(0, MOST_GROUPS).map((group) => group.slice(0, MOST_IN_GROUP).map(({ view }) => view)),
    cut: groups.length > MOST_GROUPS || groups.some((group) => group.length > MOST_IN_GROUP),
  });
}

/** Makes one contact of several of one book: the first stays, with what the others say beside it, and they go. One act, taken back at once. */
export function mergeContacts(
  ctx: Context,
  key: string,
  body: { contacts: readonly { id: string; version: number }[] },
): Result<ContactWrittenAnswer> {
  return ctx.db.write(() => {
    const on = findList(ctx, 'contacts', key);
    if (isRefusal(on)) return on;
    const found: FoundContact[] = [];
    for (const { id, version } of body.contacts) {
      const one = findContact(ctx, id);
      if (isRefusal(one) || one.decided.list.id !== on.list.id) return refuse('notFound');
      if (one.contact.version !== version) return refuse('changedMeanwhile');
      if (found.some(({ contact }) => contact.id === one.contact.id))
        return refuse('badInput', { fields: { contacts: 'mergeTwo' } });
      found.push(one);
    }
    const [first, ...others] = found;
    if (!first) return refuse('notFound');
    const facts = { name: new Directory(ctx.db).name(on.list.ownerId) };
    if (!first.may.change) return refuse('mayNotChange', { facts });
    if (others.some(({ may }) => !may.remove)) return refuse('mayNotRemove', { facts });
    const all = found.map(({ contact }) => contact) as [StoredContact, ...StoredContact[]];
    const { merged, left } = mergedContact(all, MOST);
    if (left) return refuse('badInput', { fields: { contacts: 'mergeTooMuch' } });
    const unmodelled = [first.contact, ...all.slice(1)].flatMap((one) => linesFor(first.contact, one));
    const { changes, undo } = writeContacts(ctx, on.list, 'contact.merged', [
      { before: first.contact, after: changedContact(ctx, first, { ...merged, kept: unmodelled }) },
      ...others.map((one) => ({
        before: one.contact,
        after: { ...changedContact(ctx, one, {}), removedAt: ctx.now },
      })),
    ]);
    return answerOf(ctx, on, changes[0]?.after ?? null, undo);
  });
}

/** Fields of which there can be several lines, each for itself. */
const SEVERAL = new Set(['addresses', 'phones']);

/** The lines of a card that one contact made of several keeps: all of the first one’s, and of another what no field of the first says. */
function linesFor(first: StoredContact, one: StoredContact): readonly UnmodelledLine[] {
  if (one === first) return one.kept;
  const known = new Set(first.kept.map(({ line }) => line));
  return one.kept
    .filter(({ line, of }) => (of === undefined ? !/^(REV|PRODID)[;:]/i.test(line) : SEVERAL.has(of)))
    .map((entry) => ({ ...entry, line: inVersion(entry.line, one.cardVersion, first.cardVersion) }))
    .filter(({ line }) => !known.has(line));
}
