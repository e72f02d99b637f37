import { contactRoutes, type NewContact } from '../src/contract/contacts.ts';
import { NO_RIGHTS, type Rights } from '../src/core/access/index.ts';
import { addContact, listAddressBooks } from '../src/server/operations/contacts/index.ts';
import type { Context } from '../src/server/operations/deciding/context/context.ts';
import { giveAccess } from '../src/server/operations/sharing/give-access.ts';
import type { Result } from '../src/server/result.ts';
import { addressFor } from './people.ts';

/** Looks after somebody else's contacts: reads all but what is private, adds, changes and removes. */
const KEEPS: Rights = { ...NO_RIGHTS, sight: 'full', add: true, change: 'all', remove: 'all' };

function value<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
}

type Sample = Partial<NewContact> & { readonly name: string };
const work = (address: string): NewContact['addresses'] => [{ value: address, as: 'work' }];

const HERS: readonly Sample[] = [
  {
    name: 'Marta Quill',
    role: 'Auditor',
    organisation: 'Quill Audit',
    place: 'Rua do Cais 4, Faro',
    addresses: work('marta@quill-audit.example'),
    phones: [
      { value: '+351 900 000 411', as: 'mobile' },
      { value: '+351 900 000 410', as: 'work' },
    ],
    notes: 'Comes by train, never before ten. Two copies of everything.',
    categories: ['Money'],
  },
  // Typed a second time by somebody in a hurry: doubles are found by the address.
  {
    name: 'M. Quill (audit)',
    addresses: [{ value: 'Marta@quill-audit.example', as: '' }],
    notes: 'Asked for the weir file.',
  },
  {
    name: 'Perpetua Oduya',
    role: 'Head of abstraction',
    organisation: 'Water ministry',
    place: 'Second floor, the old customs house',
    addresses: work('p.oduya@water-ministry.example'),
    phones: [{ value: '+351 900 000 520', as: 'work' }],
    categories: ['Ministry'],
  },
  {
    name: 'Henning Brandt',
    role: 'Chair',
    organisation: 'Tidewater Fund',
    addresses: work('h.brandt@tidewater.example'),
    phones: [{ value: '+351 900 000 631', as: 'mobile' }],
    link: 'https://tidewater.example',
    categories: ['Donors'],
  },
  {
    name: 'Dayo Okoro',
    role: 'Programme officer',
    organisation: 'Tidewater Fund',
    addresses: work('d.okoro@tidewater.example'),
    categories: ['Donors'],
  },
  {
    name: 'Solène Ferrand',
    role: 'Adviser',
    organisation: 'Uplands Bank',
    addresses: work('s.ferrand@uplands-bank.example'),
    phones: [{ value: '+351 900 000 702', as: 'work' }],
    categories: ['Money'],
  },
  {
    name: 'Old Mill Press',
    place: 'The mill, lower lane',
    addresses: work('office@old-mill.example'),
    phones: [{ value: '+351 900 000 118', as: 'work' }],
    notes: 'Proofs by noon, or it is next week.',
  },
  { name: 'River board', organisation: 'River board', addresses: work('board@river-board.example') },
  {
    name: 'Bruno Keane',
    role: 'Finance director',
    addresses: work(addressFor('bruno')),
    notes: 'Prefers to be asked before lunch.',
  },
  {
    name: 'Dr. Amélia Serra',
    role: 'Physician',
    place: 'Largo da Fonte 2',
    phones: [{ value: '+351 900 000 999', as: 'work' }],
    visibility: 'private',
  },
];

const HIS: readonly Sample[] = [
  { name: 'Harbour taxis', phones: [{ value: '+351 900 000 222', as: '' }], notes: 'Ask for the estate car.' },
  { name: 'Nuno, print shop', role: 'Printer', phones: [{ value: '+351 900 000 340', as: 'mobile' }] },
];

/** Whom the people of the sample know: hers, which Tomas looks after and Amara sees in outline, and his own. */
export function sampleContacts(ctx: (handle: string) => Context): void {
  const book = (handle: string): string => value(listAddressBooks(ctx(handle), handle)).lists[0]?.key ?? '';
  const give = (of: string, to: string, rights: Rights) =>
    value(giveAccess(ctx('ines'), of, { audience: { kind: 'person', id: to }, rights, seen: null }));
  const hers = book('ines');
  give(hers, 'tomas', KEEPS);
  give(hers, 'amara', { ...NO_RIGHTS, sight: 'outline' });
  for (const contact of HERS) value(addContact(ctx('ines'), hers, contactRoutes.addContact.body.parse(contact)));
  for (const contact of HIS)
    value(addContact(ctx('tomas'), book('tomas'), contactRoutes.addContact.body.parse(contact)));
}
