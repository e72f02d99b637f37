import type { ContactWire } from '@/contract/contacts.ts';
import { newContactFields, WRITTEN_CONTACT_FIELDS, type WrittenContact } from '@/core/contacts/index.ts';
import { fitsCard, type WrittenCard, writeCards } from '@/core/formats/index.ts';
import { allContactsOf, contactById, contactByKey, type StoredContact } from '../../repositories/contacts.ts';
import { programContacts } from '../../repositories/program-names.ts';
import { cardOf } from '../contacts/index.ts';
import { ContactReading, type Context, type DecidedList } from '../deciding/index.ts';
import { hash, ListPrograms } from './list-programs.ts';
import type { ObjectsWanted, ProgramObject } from './program-object.ts';

/*
 * An address book as the cards a program reads (RFC 6352).
 */

/** What isn't shown of a contact is written as in a new one. */
const fresh = Object.fromEntries(
  WRITTEN_CONTACT_FIELDS.map((name) => [name, name === 'name' ? '' : newContactFields[name].parse(undefined)]),
) as unknown as WrittenContact;

/** One address book as one person's programs have it. */
export class CardPrograms extends ListPrograms<'contacts', StoredContact, ContactWire> {
  private readonly reading: ContactReading;
  constructor(ctx: Context, decided: DecidedList<'contacts'>) {
    const { db, viewer } = ctx;
    const { id } = decided.list;
    super(
      ctx,
      decided,
      {
        byId: (contact) => contactById(db, contact),
        byKey: (key) => contactByKey(db, key),
        all: (reader, most) => allContactsOf(db, id, reader, most),
        byName: (name) => programContacts.byName(db, viewer.id, id, name),
        names: programContacts.names(db, viewer.id, id),
      },
      '.vcf',
    );
    this.reading = new ContactReading(ctx, decided);
  }

  view(contact: StoredContact): ContactWire | null {
    return this.reading.view(contact);
  }

  /** A contact as a card is written of it for the viewer, of what they see of it. */
  private writtenOf(contact: StoredContact, view: ContactWire): WrittenCard {
    if (view.may?.change) return this.all ? cardOf(contact) : { ...cardOf(contact), kept: [], changedAt: null };
    return {
      ...(Object.fromEntries(
        WRITTEN_CONTACT_FIELDS.map((name) => [name, view[name as keyof ContactWire] ?? fresh[name]]),
      ) as unknown as WrittenContact),
      uid: `${view.id}@paramo`,
      version: '4.0',
      kept: [],
      // When it was last changed isn't for everybody who sees it.
      changedAt: null,
    };
  }

  /** A contact as one object: in the older version, which every program reads, where no other is asked for. */
  object(
    contact: StoredContact,
    view: ContactWire,
    { texts, cards }: Pick<ObjectsWanted, 'texts' | 'cards'>,
  ): ProgramObject {
    const card = this.writtenOf(contact, view);
    const tag = hash(JSON.stringify([view, card.kept]));
    const text = texts ? writeCards([card], cards?.version ?? '3.0') : null;
    return { name: this.nameOf(contact, view), tag, scheduleTag: tag, text, mayChange: view.may?.change === true };
  }

  fits(contact: StoredContact, view: ContactWire, { cards }: ObjectsWanted): boolean {
    return !cards?.filter || fitsCard(writeCards([this.writtenOf(contact, view)], '3.0'), cards.filter);
  }
}
