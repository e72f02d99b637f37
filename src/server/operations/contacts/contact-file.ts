import type { BroughtIn } from '@/contract/lists.ts';
import { pick } from '@/core/calendar/index.ts';
import { type CardVersion, WRITTEN_CONTACT_FIELDS } from '@/core/contacts/index.ts';
import { calendarFileName, type ReadContact, readCards, type WrittenCard, writeCards } from '@/core/formats/index.ts';
import { allContactsOf, contactByUid, type StoredContact } from '../../repositories/contacts.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type ContactToWrite,
  type Context,
  Directory,
  findList,
  isRefusal,
  writeContacts,
} from '../deciding/index.ts';
import { holdsAll } from '../lists/index.ts';
import { freshContact, MOST_CONTACTS, noRoom } from './change-contact.ts';

/** Contacts in one file, and the problems that are named. */
const MOST_IN_FILE = 5000;
const MOST_NAMED = 100;
const EVERYTHING = { privateToo: true, own: null } as const;

/** A contact as a card is written of it. */
export const cardOf = (contact: StoredContact): WrittenCard => ({
  ...pick(contact, WRITTEN_CONTACT_FIELDS),
  uid: contact.uid,
  version: contact.cardVersion,
  kept: contact.kept,
  changedAt: contact.touched || contact.kept.length === 0 ? contact.changedAt : null,
});

/** An address book as a file of cards: all that is kept of its contacts. Reading it back gives the same. */
export function exportContacts(
  ctx: Context,
  key: string,
  version: CardVersion,
): Result<{ name: string; text: string }> {
  const found = findList(ctx, 'contacts', key);
  if (isRefusal(found)) return found;
  const { list, decision } = found;
  const owner = new Directory(ctx.db).name(list.ownerId);
  if (!holdsAll(decision)) return refuse('mayNotImport', { facts: { name: owner } });
  const contacts = allContactsOf(ctx.db, list.id, EVERYTHING, MOST_CONTACTS);
  const name = calendarFileName(list.first ? owner : list.name, ctx.now).replace(/\.ics$/, '.vcf');
  return ok({ name, text: writeCards(contacts.map(cardOf), version) });
}

/**
 * Brings the cards of a file in: those that aren't there yet are added, those that are, and are otherwise in the file, changed. What says nothing
 * of what it is called is known by being just the same. One act, taken back at once.
 */
export function importContacts(ctx: Context, key: string, text: string): Result<BroughtIn> {
  return ctx.db.write(() => {
    const found = findList(ctx, 'contacts', key);
    if (isRefusal(found)) return found;
    const { list, decision } = found;
    if (!holdsAll(decision) || !decision.rights.add)
      return refuse('mayNotImport', { facts: { name: new Directory(ctx.db).name(list.ownerId) } });
    const read = readCards(text, MOST_IN_FILE);
    if (read.kind === 'notCards') return refuse('notCards');
    if (read.kind === 'tooMany') return refuse('tooManyItems', { facts: { most: MOST_IN_FILE } });
    const nameless = read.contacts.some(({ uid }) => uid === null);
    const there = nameless ? allContactsOf(ctx.db, list.id, EVERYTHING, MOST_CONTACTS) : [];
    const same = new Map(there.map((one) => [JSON.stringify(pick(one, WRITTEN_CONTACT_FIELDS)), one]));
    const writes = read.contacts.flatMap((card): ContactToWrite[] => {
      const fields = pick(card, WRITTEN_CONTACT_FIELDS);
      const before =
        card.uid === null ? (same.get(JSON.stringify(fields)) ?? null) : contactByUid(ctx.db, list.id, card.uid);
      return cardWrites(ctx, found, card, before);
    });
    const instead = writes.flatMap(({ before }) => before ?? []);
    const added = writes.length - instead.length;
    const full = noRoom(
      ctx,
      list.id,
      writes.map(({ after }) => after),
      instead,
    );
    if (full) return full;
    const { undo } = writeContacts(ctx, list, 'contact.broughtIn', writes);
    return ok({
      added,
      changed: instead.length,
      same: read.contacts.length - writes.length,
      problems: read.problems.slice(0, MOST_NAMED),
      left: read.problems.length,
      undo,
    });
  });
}

/** Adds one contact that was read; what it is called outside, and the rest of its card, is kept only where `whole` says so. */
export function addReadContact(
  ctx: Context,
  { list }: Parameters<typeof freshContact>[1],
  card: ReadContact,
  whole: boolean,
): Result<StoredContact> {
  const full = noRoom(ctx, list.id, [{ kept: whole ? card.kept : [] }]);
  if (full) return full;
  const said = whole && card.uid !== null ? { uid: card.uid, cardVersion: card.version, kept: card.kept } : {};
  const after = freshContact(ctx, { list }, pick(card, WRITTEN_CONTACT_FIELDS), said);
  const written = writeContacts(ctx, list, 'contact.added', [{ before: null, after }]).changes[0]?.after;
  return written ? ok(written) : refuse('notFound');
}

/** What becomes of a book where a card is taken into it: nothing where it is there just so. */
function cardWrites(
  ctx: Context,
  on: Parameters<typeof freshContact>[1],
  card: ReadContact,
  before: StoredContact | null,
): ContactToWrite[] {
  const fields = pick(card, WRITTEN_CONTACT_FIELDS);
  const said = { cardVersion: card.version, kept: card.kept };
  if (before === null) {
    const uid = card.uid === null ? {} : { uid: card.uid };
    return [{ before, after: freshContact(ctx, on, fields, { ...said, ...uid }) }];
  }
  const after = { ...before, ...fields, ...said, touched: false };
  const text = (contact: StoredContact) => writeCards([cardOf(contact)], card.version);
  if (text(after) === text(before)) return [];
  return [{ before, after: { ...after, ...authorship(ctx, on.list), version: before.version + 1 } }];
}
