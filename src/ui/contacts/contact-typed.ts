import type { ContactPatch, ContactWire } from '@/contract/contacts.ts';
import type { Visibility } from '@/core/calendar/index.ts';
import { listed } from '../common/listed.ts';

type Ways<K extends 'addresses' | 'phones'> = NonNullable<ContactWire[K]>;

/** A contact as it stands in the fields of its form. */
export interface Typed {
  readonly name: string;
  readonly role: string;
  readonly organisation: string;
  readonly place: string;
  readonly link: string;
  readonly notes: string;
  readonly categories: string;
  readonly addresses: Ways<'addresses'>;
  readonly phones: Ways<'phones'>;
  readonly visibility: Visibility;
}

/** A contact as its form begins with it. */
export const typedOf = (contact: ContactWire | null): Typed => ({
  name: contact?.name ?? '',
  role: contact?.role ?? '',
  organisation: contact?.organisation ?? '',
  place: contact?.place ?? '',
  link: contact?.link ?? '',
  notes: contact?.notes ?? '',
  categories: (contact?.categories ?? []).join(', '),
  addresses: contact?.addresses ?? [],
  phones: contact?.phones ?? [],
  visibility: contact?.visibility ?? 'follow',
});

const said = <W extends { readonly value: string }>(ways: readonly W[]): W[] =>
  ways.filter(({ value }) => value.trim() !== '');

/** What was touched of a contact, as the server takes it: nothing of the rest is sent. */
export function touched(was: Typed, is: Typed): ContactPatch['fields'] {
  const fields: Record<string, unknown> = {};
  for (const name of ['name', 'role', 'organisation', 'place', 'link', 'notes', 'visibility'] as const)
    if (is[name] !== was[name]) fields[name] = is[name];
  if (is.categories !== was.categories) fields.categories = listed(is.categories);
  for (const name of ['addresses', 'phones'] as const)
    if (JSON.stringify(said<{ value: string }>(is[name])) !== JSON.stringify(was[name]))
      fields[name] = said<{ value: string }>(is[name]);
  return fields as ContactPatch['fields'];
}
