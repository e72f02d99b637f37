import { fieldsOf, type SeenAt, type WrittenOf } from '../fields/index.ts';
import { CONTACT_FIELDS } from './contact-table.ts';

/*
 * What is made of the table of a contact's fields.
 */

export type ContactFieldSeenAt<S> = SeenAt<typeof CONTACT_FIELDS, S>;
export type WrittenContact = WrittenOf<typeof CONTACT_FIELDS>;

/** A contact as the rule of access reads it; `P` is whatever names a person. */
export interface Contact<P> extends WrittenContact {
  readonly createdBy: P;
}

export const {
  written: WRITTEN_CONTACT_FIELDS,
  searched: SEARCHED_CONTACT_FIELDS,
  sights: contactSights,
  schemas: contactFields,
  fresh: newContactFields,
  sent: sentContactFields,
} = fieldsOf(CONTACT_FIELDS);
