import { describe, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import { trailByKey } from '../../repositories/trail.ts';
import { listTrail } from '../trail/index.ts';
import { add, book, change, code, contacts, eachContactDay, give, MAIL, names, org, value } from './contact-day.ts';
import {
  exportContacts,
  importContacts,
  listAroundContact,
  removeContact,
  setContactPicture,
  undoContact,
} from './index.ts';

const CARD = (uid: string, name: string, ...more: string[]) =>
  ['BEGIN:VCARD', 'VERSION:3.0', ...(uid ? [`UID:${uid}`] : []), `FN:${name}`, ...more, 'END:VCARD', ''].join('\r\n');
const bring = (by: string, text: string) => importContacts(org.ctx(by), book('ines'), text);
const file = (version: '3.0' | '4.0' = '3.0') => value(exportContacts(org.ctx('ines'), book('ines'), version));

describe('contacts as a file', () => {
  eachContactDay();

  test('come in once, change what is there, and go out as they came', () => {
    const text = CARD('1', 'Marta', 'NICKNAME:Mar', 'TEL;TYPE=cell:+351 91') + CARD('', 'Nameless', 'NOTE:x');
    expect(value(bring('ines', text))).toMatchObject({ added: 2, changed: 0, same: 0, left: 0 });
    expect(value(bring('ines', text))).toMatchObject({ added: 0, changed: 0, same: 2 });
    expect(file().text).toContain('NICKNAME:Mar\r\nTEL;TYPE=cell:+351 91\r\n');
    const changed = value(bring('ines', CARD('1', 'Marta Quill')));
    expect(changed).toMatchObject({ added: 0, changed: 1 });
    expect(names('ines')).toEqual(['Marta Quill', 'Nameless']);
    const entry = trailByKey(org.db, changed.undo);
    value(undoContact(org.ctx('ines'), entry as never));
    expect(file().text).toContain('NICKNAME:Mar');
  });

  test('read back are there already, in both versions', () => {
    add('ines', { name: 'Marta Quill', addresses: MAIL('m@quill.example'), visibility: 'private', notes: 'a; b' });
    const one = add('ines', { name: 'Solo' });
    value(change('ines', one, { role: 'Clerk' }));
    value(bring('ines', CARD('9', 'From elsewhere', 'X-A:1')));
    for (const version of ['3.0', '4.0'] as const) {
      const { name, text } = file(version);
      expect(name).toMatch(/\.vcf$/);
      expect(value(bring('ines', text))).toMatchObject({ added: 0, changed: 0, same: 3 });
    }
  });

  test('brought in again after it was removed, one of that name is there already: taking the removal back is refused', () => {
    value(bring('ines', CARD('1', 'Marta')));
    const [marta] = contacts('ines');
    const gone = value(removeContact(org.ctx('ines'), marta?.id ?? '', { version: 1 }));
    value(bring('ines', CARD('1', 'Marta')));
    expect(code(undoContact(org.ctx('ines'), trailByKey(org.db, gone.undo) as never))).toBe('changedMeanwhile');
    expect(names('ines')).toEqual(['Marta']);
  });

  test('fill a book up to what it holds in all, however few they are', () => {
    const photo = (uid: string, size = 291_500, more: string[] = []) =>
      CARD(uid, `N ${uid}`, `PHOTO;ENCODING=b;TYPE=JPEG:${'A'.repeat(size)}`, ...more);
    const many = (from: number, count = 50) =>
      Array.from({ length: count }, (_, i) => photo(String(from + i))).join('');
    for (const from of [0, 50]) value(bring('ines', many(from)));
    expect(code(bring('ines', many(100)))).toBe('bookFull');
    expect(names('ines')).toHaveLength(100);
    // A card that takes another's place counts as what it adds: what is in a full book can always be made lighter.
    value(bring('ines', many(100, 37)));
    value(bring('ines', photo('0', 150_000, [`X-A:${'A'.repeat(141_000)}`])));
    const [first] = contacts('ines');
    expect(first).toMatchObject({ name: 'N 0', version: 2 });
    value(setContactPicture(org.ctx('ines'), first?.id ?? '', 2, null));
    value(bring('ines', photo('0')));
    expect(code(bring('ines', photo('137')))).toBe('bookFull');
  });

  test('hold all there is: they are for whoever may have all of it', () => {
    add('ines', { name: 'Secret', visibility: 'private' });
    give('tomas', PRESETS.arranger);
    expect(code(exportContacts(org.ctx('tomas'), book('ines'), '4.0'))).toBe('mayNotImport');
    expect(code(bring('tomas', CARD('1', 'A')))).toBe('mayNotImport');
    expect(code(bring('bruno', CARD('1', 'A')))).toBe('notFound');
    give('bruno', { ...PRESETS.arranger, private: true });
    expect(value(exportContacts(org.ctx('bruno'), book('ines'), '4.0')).text).toContain('FN:Secret');
  });

  test('what can’t be read is named, and the rest stands', () => {
    const text = `${CARD('1', 'A')}BEGIN:VCARD\r\nVERSION:2.1\r\nFN:Old\r\nEND:VCARD\r\n${CARD('1', 'A again')}`;
    const brought = value(bring('ines', text));
    expect(brought.problems).toEqual([
      { code: 'cardVersion', line: 6, title: 'Old' },
      { code: 'twice', line: 10, title: 'A again' },
    ]);
    expect([brought.added, brought.left]).toEqual([1, 2]);
    expect(code(bring('ines', 'hello'))).toBe('notCards');
    expect(code(bring('ines', CARD('', 'A').repeat(5001)))).toBe('tooManyItems');
  });
});

describe('around a contact', () => {
  eachContactDay();
  const meet = (day: string, title: string, visibility: 'follow' | 'private' = 'follow') =>
    org.add(
      'ines',
      'ines',
      {
        title,
        visibility,
        when: { start: `${day}T10:00:00`, end: `${day}T11:00:00`, allDay: false, zone: 'Europe/Lisbon' },
      },
      { attendees: [{ address: 'marta@quill.example', name: 'Marta', answer: 'accepted' }] },
    );

  test('stand the meetings with them that one may see, and when one last met', () => {
    meet('2027-02-10', 'First');
    meet('2027-02-20', 'Secret', 'private');
    meet('2027-03-09', 'Next');
    const marta = add('ines', { name: 'Marta', addresses: MAIL('Marta@Quill.example') });
    const around = value(listAroundContact(org.ctx('ines'), marta.id));
    expect(around.meetings.map(({ title }) => title).toSorted()).toEqual(['First', 'Next', 'Secret']);
    expect(around.lastMet).toBe('2027-02-20');
    give('tomas', PRESETS.full);
    give('tomas', PRESETS.full, org.calendar('ines'));
    const seen = value(listAroundContact(org.ctx('tomas'), marta.id));
    expect(seen.meetings.map(({ title }) => title).toSorted()).toEqual(['First', 'Next']);
    expect(seen.lastMet).toBe('2027-02-10');
    give('bruno', PRESETS.full);
    give('bruno', PRESETS.titles, org.calendar('ines'));
    expect(value(listAroundContact(org.ctx('bruno'), marta.id))).toMatchObject({ meetings: [], lastMet: null });
  });
});

describe('the trail of contacts', () => {
  eachContactDay();

  test('tells who did what, to whom it may be told, of what they see', () => {
    give('tomas', PRESETS.arranger);
    const marta = add('tomas', { name: 'Marta', addresses: MAIL('m@quill.example') });
    value(change('tomas', marta, { addresses: MAIL('marta@quill.example') }));
    const mine = value(listTrail(org.ctx('ines'), { of: 'name', kind: 'contacts' })).entries;
    expect(mine.map(({ verb, items }) => [verb, items])).toEqual([
      ['contact.changed', ['Marta']],
      ['contact.added', ['Marta']],
    ]);
    expect(mine[0]?.changed).toEqual([{ field: 'addresses', before: 'm@quill.example', after: 'marta@quill.example' }]);
    value(removeContact(org.ctx('ines'), marta.id, { version: 2 }));
    const secret = add('ines', { name: 'Secret', visibility: 'private' });
    value(change('ines', secret, { role: 'x' }));
    const theirs = value(listTrail(org.ctx('tomas'), { of: 'calendar', calendar: book('ines') })).entries;
    expect(JSON.stringify(theirs)).not.toContain('Secret');
  });
});
