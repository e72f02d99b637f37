import type { ContactWire } from '@/contract/contacts.ts';
import { type Decision, type MayItem, mayItem, projectOther, type Standing } from '@/core/access/index.ts';
import { type Party, pick } from '@/core/calendar/index.ts';
import { addressForm, type Contact, WRITTEN_CONTACT_FIELDS } from '@/core/contacts/index.ts';
import { instantText } from '@/core/time/index.ts';
import { bareIdFor } from '../../../ids.ts';
import { contactsOf, hasPicture, type ListedContact } from '../../../repositories/contacts.ts';
import type { AddressBook } from '../../../repositories/lists.ts';
import { personByAddress } from '../../../repositories/people.ts';
import type { FoundAudience } from '../access/audience.ts';
import type { Context } from '../context/context.ts';
import { Directory } from '../context/directory.ts';

/** How somebody stands to a contact: nobody is named on one so that they would see more of it. */
const standingOn = (ctx: Pick<Context, 'viewer'>, contact: ListedContact): Standing => ({
  named: false,
  created: contact.createdBy === ctx.viewer.id,
  ownerInvited: false,
});

/** What the viewer may do with a contact, whether they see it or not. */
export function mayOnContact(ctx: Pick<Context, 'viewer'>, decision: Decision, contact: ListedContact): MayItem {
  const facts = { visibility: contact.visibility, shows: 'busy', cancelled: false, ownerAnswer: null } as const;
  return mayItem(facts, standingOn(ctx, contact), decision);
}

/** Contacts that are shown of a book where access to it is thought of. */
const MOST_SHOWN = 30;

/** The first contacts of a book as an audience sees them under a decision, with nothing in them that the one who looks doesn't see too. */
export function contactsAs(
  ctx: Context,
  mine: { readonly list: AddressBook; readonly decision: Decision },
  { person }: Pick<FoundAudience, 'person'>,
  theirs: Decision,
): ContactWire[] {
  const reader = { privateToo: mine.decision.owner || mine.decision.rights.private, own: null };
  // Nobody in particular made none of them.
  const eyes = { ...ctx, viewer: person ?? { ...ctx.viewer, id: -1, address: '' } };
  const [target, looker] = [new ContactReading(eyes, { ...mine, decision: theirs }), new ContactReading(ctx, mine)];
  return contactsOf(ctx.db, mine.list.id, reader, null, MOST_SHOWN).flatMap((contact) => {
    const [seen, own] = [target.view(contact), looker.view(contact)];
    if (!seen || !own) return [];
    const { may: _may, mayRemove: _remove, ...fields } = seen;
    const both = Object.entries(fields).filter(([name]) => name in own);
    const view = Object.fromEntries(both) as unknown as ContactWire;
    return [{ ...view, ...(view.version === undefined ? {} : { may: { change: false, remove: false } }) }];
  });
}

/** Reads contacts of one book as the viewer sees them; whom they name is looked up once. */
export class ContactReading {
  constructor(
    private readonly ctx: Context,
    private readonly on: { readonly list: AddressBook; readonly decision: Decision },
    private readonly directory = new Directory(ctx.db),
  ) {}

  /** A contact as it is seen; `null` where it is left out. */
  view(contact: ListedContact): ContactWire | null {
    const { ctx, directory } = this;
    const { list, decision } = this.on;
    const fields: Contact<Party | null> = {
      ...pick(contact, WRITTEN_CONTACT_FIELDS),
      createdBy: directory.party(contact.createdBy),
    };
    const view = projectOther('contacts', fields, standingOn(ctx, contact), decision);
    if (view === null) return null;
    const may = mayOnContact(ctx, decision, contact);
    if (!('notes' in view)) {
      const below = { id: bareIdFor(ctx.viewer.id, contact.key), book: list.key, ...view } as ContactWire;
      return may.remove ? { ...below, mayRemove: true } : below;
    }
    const authored = (at: number, actor: number, principal: number) => ({
      at: instantText(at),
      actor: directory.name(actor),
      principal: directory.name(principal),
    });
    return {
      id: contact.key,
      book: list.key,
      ...view,
      version: contact.version,
      may: { change: may.change, remove: may.remove },
      inside: this.inside(contact),
      picture: hasPicture(contact),
      created: authored(contact.createdAt, contact.createdBy, contact.createdFor),
      changed: authored(contact.changedAt, contact.changedBy, contact.changedFor),
    } as ContactWire;
  }

  /** Who of the house has one of the addresses. */
  private inside(contact: ListedContact): ContactWire['inside'] {
    for (const { value } of contact.addresses) {
      const person = personByAddress(this.ctx.db, addressForm(value));
      if (person?.inside) return { handle: person.handle, name: person.name };
    }
    return null;
  }
}
