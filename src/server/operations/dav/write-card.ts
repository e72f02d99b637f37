import { contactRoutes } from '@/contract/contacts.ts';
import { type contactFields, WRITTEN_CONTACT_FIELDS } from '@/core/contacts/index.ts';
import { type ReadContact, readCards } from '@/core/formats/index.ts';
import { contactByUid } from '../../repositories/contacts.ts';
import { programContacts } from '../../repositories/program-names.ts';
import { must, ok, type Refusal, Refused, type Result, refuse } from '../../result.ts';
import { addReadContact, changeContact, removeContact } from '../contacts/index.ts';
import { Directory } from '../deciding/index.ts';
import type { CardPrograms } from './cards.ts';
import { checked, checkName } from './checked.ts';
import { type Seen, stillSo } from './seen.ts';

/*
 * What a program writes into an address book: what it changed is found by holding its card against the card it was given, and made by the
 * operation that makes it for everybody.
 */

/** The one contact of a text, or why there is none. */
function cardIn(text: string): ReadContact & { readonly uid: string } {
  const read = readCards(text, 2);
  if (read.kind === 'notCards') throw new Refused(refuse('notCards'));
  const wrong = read.kind === 'read' ? read.problems[0] : undefined;
  if (wrong) throw new Refused(refuse('badInput', { fields: { [wrong.title ?? wrong.code]: 'unclear' } }));
  const [card, more] = read.kind === 'read' ? read.contacts : [];
  if (!card || more || card.uid === null) throw new Refused(refuse('badInput', { fields: { uid: 'oneThing' } }));
  return { ...card, uid: card.uid };
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const OURS = /^(?:[\w-]+\.)?X-PARAMO-/i;

/** The card a program sends, with what it left out of our own words and doesn't know: that says nothing of them. */
function withOwn(before: ReadContact, after: ReadContact, text: string): ReadContact {
  const says = (name: RegExp) => name.test(text);
  // A class says whether something is private, and no more than that.
  const [was, is] = [before, after].map((card) => card.visibility === 'private');
  const said = says(/^(?:[\w-]+\.)?X-PARAMO-VISIBILITY[;:]/im) || (says(/^(?:[\w-]+\.)?CLASS[;:]/im) && was !== is);
  const visibility = said ? after.visibility : before.visibility;
  const kept = says(/^(?:[\w-]+\.)?X-PARAMO-/im)
    ? after.kept
    : [...after.kept, ...before.kept.filter(({ line }) => OURS.test(line))];
  return { ...after, visibility, kept };
}

const mayNot = ({ ctx, decided }: CardPrograms, code: 'mayNotChange' | 'mayNotAdd'): Refusal =>
  refuse(code, { facts: { name: new Directory(ctx.db).name(decided.list.ownerId) } });

/** Writes one contact of a book as a program sends it. Refused wherever a window would be. `added` says that it is new. */
export function putCard(programs: CardPrograms, name: string, text: string, seen: Seen): Result<{ added: boolean }> {
  const { ctx, decided } = programs;
  const { list, decision } = decided;
  const found = programs.find(name);
  const now = found && programs.object(found.stored, found.view, { texts: false });
  if (!stillSo(seen, now?.tag ?? null)) return refuse('seenOtherwise');
  if (now && !now.mayChange) return mayNot(programs, 'mayNotChange');
  if (!now && !decision.rights.add) return mayNot(programs, 'mayNotAdd');
  const sent = cardIn(text);
  if (!found) {
    checkName(name);
    // To nobody who isn't shown everything does what it is called outside say whether it was there.
    const there = programs.all ? contactByUid(ctx.db, list.id, sent.uid) : null;
    if (there) return programs.alreadyThere(there);
    const contact = must(addReadContact(ctx, decided, sent, programs.all));
    programContacts.call(ctx.db, ctx.viewer.id, list.id, name, contact.id);
    return ok({ added: true });
  }
  // It is held against what a program of its version was given.
  const given = programs.object(found.stored, found.view, { texts: true, cards: { version: sent.version } });
  const before = cardIn(given.text ?? '');
  if (before.uid !== sent.uid) return refuse('badInput', { fields: { uid: 'oneThing' } });
  const after = withOwn(before, sent, text);
  const changed = WRITTEN_CONTACT_FIELDS.filter((field) => !same(before[field], after[field]));
  const card =
    programs.all && !same([before.version, before.kept], [after.version, after.kept])
      ? { cardVersion: after.version, kept: after.kept }
      : undefined;
  if (changed.length === 0 && card === undefined) return ok({ added: false });
  const fields = Object.fromEntries(changed.map((field) => [field, after[field as keyof typeof contactFields]]));
  const body = checked(contactRoutes.changeContact.body, { version: found.stored.version, fields });
  must(changeContact(ctx, found.stored.key, body, card));
  return ok({ added: false });
}

/** Removes one contact of a book, where the viewer may. */
export function deleteCard(programs: CardPrograms, name: string, seen: Seen): Result<{ done: true }> {
  const found = programs.find(name);
  if (!found) return refuse('notFound');
  if (!stillSo(seen, programs.object(found.stored, found.view, { texts: false }).tag)) return refuse('seenOtherwise');
  const { version } = found.view;
  must(removeContact(programs.ctx, found.view.id, version === undefined ? {} : { version }));
  return ok({ done: true as const });
}
