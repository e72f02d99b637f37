import { describe, expect, test } from 'vitest';
import { contactWire } from '@/contract/contacts.ts';
import { NO_RIGHTS, PRESETS } from '@/core/access/index.ts';
import { trailByKey } from '../../repositories/trail.ts';
import { addList } from '../lists/index.ts';
import { search } from '../search/index.ts';
import {
  add,
  book,
  change,
  code,
  contacts,
  eachContactDay,
  fields,
  give,
  MAIL,
  names,
  org,
  value,
} from './contact-day.ts';
import {
  copyContact,
  listAddressBooks,
  listAlikeContacts,
  listAroundContact,
  listContacts,
  mergeContacts,
  readContact,
  removeContact,
  undoContact,
} from './index.ts';

const MARTA = {
  name: 'Marta Quill',
  role: 'Auditor',
  organisation: 'Quill & Sons',
  place: 'Faro',
  addresses: MAIL('marta@quill.example'),
  phones: [{ value: '+351 210 111 222', as: 'mobile' as const }],
  notes: 'Tea, no sugar.',
  categories: ['audit'],
};
const undo = (by: string, key: string) => {
  const entry = trailByKey(org.db, key);
  if (!entry) throw new Error('no entry');
  return undoContact(org.ctx(by), entry);
};

describe('an address book', () => {
  eachContactDay();

  test('is its owner’s alone to begin with, and isn’t there for others', () => {
    add('ines', MARTA);
    expect(names('ines')).toEqual(['Marta Quill']);
    for (const who of ['tomas', 'bruno', 'amara']) {
      expect(code(listContacts(org.ctx(who), book('ines'), {}))).toBe('notFound');
      expect(code(listAddressBooks(org.ctx(who), 'ines'))).toBe('notFound');
    }
    expect(value(listAddressBooks(org.ctx('ines'), 'ines')).lists).toMatchObject([{ name: '', own: true, count: 1 }]);
  });

  test.each([
    ['title', ['book', 'id', 'name']],
    ['outline', ['book', 'id', 'name', 'organisation', 'place', 'role']],
  ] as const)('at %s shows just that, under an id that leads nowhere', (sight, keys) => {
    const marta = add('ines', MARTA);
    give('bruno', { ...NO_RIGHTS, sight });
    const [seen] = contacts('bruno');
    expect(Object.keys(seen as object).sort()).toEqual(keys);
    expect(contactWire.safeParse(seen).success).toBe(true);
    expect(seen?.id).not.toBe(marta.id);
    for (const id of [seen?.id ?? '', marta.id]) expect(code(readContact(org.ctx('bruno'), id))).toBe('notFound');
    for (const id of [seen?.id ?? '', marta.id]) expect(code(listAroundContact(org.ctx('bruno'), id))).toBe('notFound');
    expect(names('bruno', book('ines'), 'quill')).toEqual(sight === 'outline' ? ['Marta Quill'] : ['Marta Quill']);
    expect(names('bruno', book('ines'), 'sugar')).toEqual([]);
    expect(names('bruno', book('ines'), 'auditor')).toEqual(sight === 'outline' ? ['Marta Quill'] : []);
    expect(value(search(org.ctx('bruno'), { words: 'marta@quill.example' })).contacts).toEqual([]);
  });

  test('leaves out what is private, its number too, and finds nothing of it', () => {
    add('ines', MARTA);
    const hidden = add('ines', { name: 'Dr. Secret', visibility: 'private', addresses: MAIL('s@clinic.example') });
    give('tomas', PRESETS.arranger);
    const seen = value(listAddressBooks(org.ctx('tomas'), 'tomas')).others[0];
    expect(seen).toMatchObject({ count: 1, owner: { handle: 'ines' } });
    expect(names('tomas')).toEqual(['Marta Quill']);
    expect(names('tomas', book('ines'), 'secret')).toEqual([]);
    expect(value(search(org.ctx('tomas'), { words: 'secret' })).contacts).toEqual([]);
    expect(code(readContact(org.ctx('tomas'), hidden.id))).toBe('notFound');
    expect(code(change('tomas', hidden, { name: 'x' }))).toBe('notFound');
    expect(code(removeContact(org.ctx('tomas'), hidden.id, { version: 1 }))).toBe('notFound');
    expect(code(copyContact(org.ctx('tomas'), hidden.id, { book: book('tomas') }))).toBe('notFound');
  });

  test('is kept by whoever may, in its owner’s name; each does what they may and no more', () => {
    give('tomas', PRESETS.arranger);
    give('bruno', PRESETS.helper);
    const marta = add('tomas', MARTA);
    expect(marta.created).toMatchObject({ actor: 'Tomas', principal: 'Ines' });
    expect(code(change('amara', marta, { role: 'x' }))).toBe('notFound');
    const written = value(change('tomas', marta, { role: '', phones: [] }));
    expect(written.contact).toMatchObject({ role: null, phones: [], version: 2, notes: MARTA.notes });
    expect(code(change('tomas', marta, { role: 'again' }))).toBe('changedMeanwhile');
    value(undo('tomas', written.undo));
    expect(contacts('ines')[0]).toMatchObject({ role: 'Auditor', version: 3 });
    expect(code(undo('bruno', written.undo))).toBe('notFound');
    const gone = value(removeContact(org.ctx('ines'), marta.id, { version: 3 }));
    expect(names('ines')).toEqual([]);
    value(undo('ines', gone.undo));
    expect(names('ines')).toEqual(['Marta Quill']);
  });

  test('read only is copied into one’s own, and is one’s own there', () => {
    const marta = add('ines', MARTA);
    give('bruno', PRESETS.full);
    const [seen] = contacts('bruno');
    expect(seen?.may).toEqual({ change: false, remove: false });
    expect(code(change('bruno', marta, { role: 'x' }))).toBe('mayNotChange');
    expect(code(copyContact(org.ctx('bruno'), marta.id, { book: book('ines') }))).toBe('mayNotAdd');
    value(copyContact(org.ctx('bruno'), marta.id, { book: book('bruno') }));
    const [own] = contacts('bruno', book('bruno'));
    expect(own).toMatchObject({ ...MARTA, may: { change: true, remove: true }, version: 1 });
    value(change('bruno', own as never, { role: 'Partner' }));
    expect(contacts('ines')[0]?.role).toBe('Auditor');
  });

  test('is read a page at a time, by name without regard to marks', () => {
    for (const name of ['Zed', 'Álvaro', 'alba', 'Beto']) add('ines', { name });
    for (let i = 0; i < 260; i++) add('ines', { name: `M ${String(i).padStart(3, '0')}` });
    const first = value(listContacts(org.ctx('ines'), book('ines'), {}));
    expect(first.contacts.slice(0, 3).map(({ name }) => name)).toEqual(['alba', 'Álvaro', 'Beto']);
    expect([first.contacts.length, first.list.count]).toEqual([250, 264]);
    const rest = value(listContacts(org.ctx('ines'), book('ines'), { after: first.more ?? '' }));
    expect([rest.contacts.length, rest.contacts.at(-1)?.name, rest.more]).toEqual([14, 'Zed', null]);
    expect(fields(listContacts(org.ctx('ines'), book('ines'), { after: 'x' }))).toEqual({ after: 'unclear' });
    give('bruno', PRESETS.full);
    expect(fields(listContacts(org.ctx('bruno'), book('ines'), { after: first.more ?? '' }))).toEqual({
      after: 'unclear',
    });
  });

  test('says whose address is somebody’s of the house', () => {
    const { address } = org.person('bruno');
    expect(add('ines', { name: 'B.', addresses: MAIL(` ${address.toUpperCase()} `) }).inside).toMatchObject({
      handle: 'bruno',
    });
  });

  test('may be one of several, each given by itself', () => {
    const { list: other } = value(addList(org.ctx('ines'), 'contacts', 'ines', { name: 'Donors' }));
    add('ines', { name: 'Somebody' }, other);
    give('bruno', PRESETS.full, other);
    expect(names('bruno', other)).toEqual(['Somebody']);
    expect(code(listContacts(org.ctx('bruno'), book('ines'), {}))).toBe('notFound');
    expect(value(listAddressBooks(org.ctx('bruno'), 'ines')).lists.map(({ name }) => name)).toEqual(['Donors']);
    expect(fields(addList(org.ctx('ines'), 'contacts', 'ines', { name: 'donors' }))).toEqual({ name: 'listTaken' });
  });
});

describe('contacts that are one and the same', () => {
  eachContactDay();
  const twice = () => [
    add('ines', MARTA),
    add('ines', { name: 'M. Quill', addresses: MAIL('MARTA@quill.example'), link: 'https://quill.example' }),
  ];

  test('are found, made one, and several again', () => {
    const [marta, other] = twice() as [ReturnType<typeof add>, ReturnType<typeof add>];
    add('ines', { name: 'Somebody else' });
    const { groups } = value(listAlikeContacts(org.ctx('ines'), book('ines')));
    expect(groups.map((group) => group.map(({ name }) => name))).toEqual([['M. Quill', 'Marta Quill']]);
    const body = { contacts: [marta, other].map(({ id, version = 0 }) => ({ id, version })) };
    const merged = value(mergeContacts(org.ctx('ines'), book('ines'), body));
    expect(merged.contact).toMatchObject({
      name: 'Marta Quill',
      addresses: MAIL('marta@quill.example'),
      link: 'https://quill.example',
      notes: 'Tea, no sugar.\n\nM. Quill',
    });
    expect(names('ines')).toEqual(['Marta Quill', 'Somebody else']);
    expect(value(listAlikeContacts(org.ctx('ines'), book('ines'))).groups).toEqual([]);
    expect(code(mergeContacts(org.ctx('ines'), book('ines'), body))).toBe('changedMeanwhile');
    value(undo('ines', merged.undo));
    expect(names('ines')).toEqual(['M. Quill', 'Marta Quill', 'Somebody else']);
    expect(contacts('ines')[1]).toMatchObject({ link: null, notes: 'Tea, no sugar.' });
  });

  test('tell nothing of what isn’t seen, and aren’t made one by whoever may not', () => {
    const [marta, other] = twice() as [ReturnType<typeof add>, ReturnType<typeof add>];
    value(change('ines', other, { visibility: 'private' }));
    give('tomas', PRESETS.arranger);
    expect(value(listAlikeContacts(org.ctx('tomas'), book('ines'))).groups).toEqual([]);
    const body = {
      contacts: [
        { id: marta.id, version: 1 },
        { id: other.id, version: 2 },
      ],
    };
    expect(code(mergeContacts(org.ctx('tomas'), book('ines'), body))).toBe('notFound');
    give('bruno', PRESETS.full);
    expect(value(listAlikeContacts(org.ctx('bruno'), book('ines'))).groups).toEqual([]);
    const seen = { contacts: [...body.contacts.slice(0, 1), { id: add('ines', { name: 'C' }).id, version: 1 }] };
    expect(code(mergeContacts(org.ctx('bruno'), book('ines'), seen))).toBe('mayNotChange');
    const self = { contacts: [body.contacts[0], body.contacts[0]] as never };
    expect(fields(mergeContacts(org.ctx('ines'), book('ines'), self))).toEqual({ contacts: 'mergeTwo' });
  });
});
