import { afterEach, beforeEach } from 'vitest';
import { type ContactPatch, type ContactWire, contactRoutes, type NewContact } from '@/contract/contacts.ts';
import type { Rights } from '@/core/access/index.ts';
import { listsOf } from '../../repositories/lists.ts';
import type { Result } from '../../result.ts';
import { giveAccess } from '../sharing/index.ts';
import { type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { addContact, changeContact, listContacts } from './index.ts';

/*
 * For tests: a small organisation as people meet its address books.
 */
export let org: SmallOrganisation;
/** Makes it anew before each test of the file that calls this. */
export function eachContactDay(): void {
  beforeEach(() => {
    org = smallOrganisation();
  });
  afterEach(() => org.close());
}

export const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
};
export const code = (result: Result<unknown>) => (result.ok ? null : result.code);
export const fields = (result: Result<unknown>) => (result.ok ? null : result.fields);
export const book = (handle: string, nth = 0): string =>
  listsOf(org.db, 'contacts', org.person(handle).id)[nth]?.key ?? '';
export const give = (to: string, rights: Rights, of = book('ines')) =>
  value(giveAccess(org.ctx('ines'), of, { audience: { kind: 'person', id: to }, rights, seen: null }));
const input = (more: Partial<NewContact> & { name: string }): NewContact => contactRoutes.addContact.body.parse(more);
export const add = (by: string, more: Partial<NewContact> & { name: string }, to = book('ines')): ContactWire =>
  value(addContact(org.ctx(by), to, input(more))).contact as ContactWire;
export const change = (by: string, contact: ContactWire, more: ContactPatch['fields']) =>
  changeContact(org.ctx(by), contact.id, { version: contact.version ?? 0, fields: more });
export const contacts = (by: string, of = book('ines'), words?: string) =>
  value(listContacts(org.ctx(by), of, { words })).contacts;
export const names = (by: string, of?: string, words?: string) => contacts(by, of, words).map(({ name }) => name);
export const MAIL = (value: string) => [{ value, as: 'work' as const }];
