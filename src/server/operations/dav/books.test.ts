import { describe, expect, test } from 'vitest';
import { contactRoutes, type NewContact } from '@/contract/contacts.ts';
import { NO_RIGHTS, PRESETS, type Rights } from '@/core/access/index.ts';
import { listsOf } from '../../repositories/lists.ts';
import type { Result } from '../../result.ts';
import { addContact, exportContacts, importContacts, listContacts } from '../contacts/index.ts';
import { giveAccess } from '../sharing/index.ts';
import { listProgramCalendars, readProgramCalendar } from './calendars.ts';
import { listObjects, readObject } from './objects.ts';
import { eachProgramDay, NONE, org } from './program-day.ts';
import type { ObjectsWanted } from './program-object.ts';
import { deleteObject, putObject } from './write-object.ts';

eachProgramDay();

function value<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
}
const book = (): string => listsOf(org.db, 'contacts', org.person('ines').id)[0]?.key ?? '';
const add = (more: Partial<NewContact> & { name: string }) =>
  value(addContact(org.ctx('ines'), book(), contactRoutes.addContact.body.parse(more))).contact;
const give = (to: string, rights: Rights) =>
  value(giveAccess(org.ctx('ines'), book(), { audience: { kind: 'person', id: to }, rights, seen: null }));
const objects = (who: string, wanted: Partial<ObjectsWanted> = {}) => {
  const read = listObjects(org.ctx(who), book(), { texts: true, ...wanted });
  return read.ok ? read.value.objects : read.code;
};
const all = (who: string, wanted: Partial<ObjectsWanted> = {}) => {
  const read = objects(who, wanted);
  return typeof read === 'string' ? read : read.map(({ text }) => text).join('\n');
};
const only = (who: string) => {
  const read = objects(who);
  const one = typeof read === 'string' ? undefined : read[0];
  if (!one) throw new Error('nothing there');
  return one;
};
const put = (who: string, name: string, text: string, seen = NONE) => putObject(org.ctx(who), book(), name, text, seen);
const code = (result: Result<unknown>) => (result.ok ? null : result.code);
const card = (uid: string, ...lines: string[]) =>
  ['BEGIN:VCARD', 'VERSION:3.0', `UID:${uid}`, ...lines, 'END:VCARD', ''].join('\r\n');
const names = (who: string) => value(listContacts(org.ctx(who), book(), {})).contacts.map(({ name }) => name);

describe('an address book for programs', () => {
  test('stands beside the calendars, named in the language of the viewer; hidden it is not there', () => {
    const books = listProgramCalendars(org.ctx('ines')).calendars.filter(({ holds }) => holds === 'VCARD');
    expect(books).toMatchObject([{ key: book(), name: 'Contacts', own: true }]);
    expect(readProgramCalendar(org.ctx('tomas'), book()).ok).toBe(false);
    expect(objects('tomas')).toBe('notFound');
    expect(code(put('tomas', 'a.vcf', card('1', 'FN:A')))).toBe('notFound');
    give('tomas', PRESETS.full);
    expect(value(readProgramCalendar(org.ctx('tomas'), book())).name).toBe('Ines, Contacts');
  });

  test('shows each contact at the sight of the viewer, and no more', () => {
    add({ name: 'Marta', role: 'Auditor', notes: 'Tea.', addresses: [{ value: 'm@quill.example', as: 'work' }] });
    add({ name: 'Secret', visibility: 'private' });
    expect(all('ines')).toMatch(/FN:Marta[\s\S]*FN:Secret[\s\S]*CLASS:PRIVATE/);
    give('bruno', { ...NO_RIGHTS, sight: 'outline' });
    expect(all('bruno')).toMatch(/FN:Marta[\s\S]*TITLE:Auditor/);
    expect(all('bruno')).not.toMatch(/Tea|quill|Secret|REV/);
    const seen = only('bruno');
    expect(seen.mayChange).toBe(false);
    expect(value(readObject(org.ctx('bruno'), book(), seen.name)).text).toBe(seen.text);
    // The name it has for whoever sees all of it leads nowhere here.
    expect(code(readObject(org.ctx('bruno'), book(), only('ines').name))).toBe('notFound');
    expect(all('ines', { cards: { version: '4.0' } })).toContain('VERSION:4.0');
  });

  test('is asked by what stands in a card as it is seen', () => {
    add({ name: 'Marta', notes: 'Tea.' });
    add({ name: 'Bento', phones: [{ value: '+351 1', as: 'fax' }] });
    const filtering = (name: string, text: string) => ({
      cards: {
        filter: {
          all: false,
          props: [
            {
              name,
              absent: false,
              all: false,
              texts: [{ value: text, how: 'contains' as const, negate: false, exact: false }],
              params: [],
            },
          ],
        },
      },
    });
    expect(objects('ines', filtering('NOTE', 'tea'))).toHaveLength(1);
    give('bruno', { ...NO_RIGHTS, sight: 'title' });
    expect(objects('bruno', filtering('NOTE', 'tea'))).toHaveLength(0);
    expect(objects('bruno', filtering('FN', 'mart'))).toHaveLength(1);
  });
});

describe('what a program writes into an address book', () => {
  test('is added once, kept as it came, changed where it changed, and removed', () => {
    const first = card('u1', 'FN:Marta', 'N:Quill;Marta;;;', 'NICKNAME:Mar', 'TEL;TYPE=cell:+351 9', 'X-A:1');
    expect(value(put('ines', 'marta.vcf', first)).added).toBe(true);
    expect(code(put('ines', 'other.vcf', first))).toBe('alreadyThere');
    const mine = value(readObject(org.ctx('ines'), book(), 'marta.vcf'));
    for (const line of ['NICKNAME:Mar', 'N:Quill;Marta;;;', 'TEL;TYPE=cell:+351 9', 'X-A:1'])
      expect(mine.text).toContain(`${line}\r\n`);
    expect(value(put('ines', 'marta.vcf', mine.text ?? '')).added).toBe(false);
    expect(value(readObject(org.ctx('ines'), book(), 'marta.vcf')).tag).toBe(mine.tag);
    const changed = (mine.text ?? '').replace('TEL;TYPE=cell:+351 9', 'TEL;TYPE=cell:+351 10');
    expect(code(put('ines', 'marta.vcf', changed, { match: '"stale"', noneMatch: null }))).toBe('seenOtherwise');
    value(put('ines', 'marta.vcf', changed, { match: `"${mine.tag}"`, noneMatch: null }));
    expect(value(listContacts(org.ctx('ines'), book(), {})).contacts[0]).toMatchObject({
      name: 'Marta',
      phones: [{ value: '+351 10', as: 'mobile' }],
      version: 2,
    });
    expect(value(exportContacts(org.ctx('ines'), book(), '3.0')).text).toContain('NICKNAME:Mar');
    value(deleteObject(org.ctx('ines'), book(), 'marta.vcf', NONE));
    expect(names('ines')).toEqual([]);
  });

  test('that drops our own words changes nothing by that: what is private stays so', () => {
    value(importContacts(org.ctx('ines'), book(), card('p', 'FN:Secret', 'CLASS:PRIVATE')));
    const { name, text } = only('ines');
    const dropped = (text ?? '').replace(/^(CLASS|X-PARAMO-[^:]*):.*\r\n/gm, '').replace('FN:Secret', 'FN:Secret, MD');
    value(put('ines', name, dropped));
    give('tomas', PRESETS.arranger);
    expect(names('ines')).toEqual(['Secret, MD']);
    expect(names('tomas')).toEqual([]);
  });

  test('says by its class whether something is private, and no more than that', () => {
    add({ name: 'Half', visibility: 'outline' });
    const { name, text } = only('ines');
    const classed = (text ?? '')
      .replace(/^X-PARAMO-[^:]*:.*\r\n/gm, '')
      .replace('END:VCARD', 'CLASS:PUBLIC\r\nEND:VCARD');
    const now = () => value(listContacts(org.ctx('ines'), book(), {})).contacts[0]?.visibility;
    value(put('ines', name, classed));
    expect(now()).toBe('outline');
    value(put('ines', name, classed.replace('CLASS:PUBLIC', 'CLASS:PRIVATE')));
    expect(now()).toBe('private');
    value(put('ines', name, classed));
    expect(now()).toBe('follow');
  });

  test('sent back as it was given changes nothing, in either version', () => {
    value(
      importContacts(
        org.ctx('ines'),
        book(),
        card('1', 'FN:Marta', 'N:Quill;Marta;;;', 'BDAY:1970-04-15', 'CLASS:PRIVATE'),
      ),
    );
    for (const version of ['3.0', '4.0'] as const) {
      const [before] = objects('ines', { cards: { version } }) as { name: string; tag: string; text: string | null }[];
      value(put('ines', before?.name ?? '', before?.text ?? ''));
      expect(only('ines').tag).toBe(before?.tag);
    }
  });

  test('is refused wherever a window would be', () => {
    add({ name: 'Marta' });
    give('bruno', PRESETS.full);
    const { name, text } = only('bruno');
    expect(code(put('bruno', name, (text ?? '').replace('FN:Marta', 'FN:Other')))).toBe('mayNotChange');
    expect(code(put('bruno', 'new.vcf', card('2', 'FN:B')))).toBe('mayNotAdd');
    expect(code(deleteObject(org.ctx('bruno'), book(), name, NONE))).toBe('mayNotRemove');
    give('amara', { ...NO_RIGHTS, sight: 'full', add: true, change: 'own', remove: 'own' });
    value(put('amara', 'a.vcf', card('3', 'FN:Amara’s', 'X-HERS:1')));
    // Whoever isn't shown everything neither learns what objects are called outside nor sets it.
    expect(value(put('amara', 'b.vcf', card('3', 'FN:Again'))).added).toBe(true);
    for (const bad of [
      '',
      'hello',
      card('4'),
      card('4', 'FN:A') + card('5', 'FN:B'),
      'BEGIN:VCARD\r\nVERSION:2.1\r\nUID:1\r\nFN:A\r\nEND:VCARD\r\n',
    ])
      expect(put('ines', 'bad.vcf', bad).ok).toBe(false);
    expect(names('ines')).toEqual(['Again', 'Amara’s', 'Marta']);
  });
});
