import { describe, expect, test } from 'vitest';
import { NO_RIGHTS, PRESETS } from '@/core/access/index.ts';
import { trailByKey } from '../../repositories/trail.ts';
import { add, book, code, contacts, eachContactDay, fields, give, org, value } from './contact-day.ts';
import {
  exportContacts,
  importContacts,
  readContact,
  readContactPicture,
  setContactPicture,
  undoContact,
} from './index.ts';

const JPEG = new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3, 4]);
const PNG = new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 9]);
const set = (by: string, id: string, version: number, bytes: Uint8Array | null) =>
  setContactPicture(org.ctx(by), id, version, bytes);
const read = async (by: string, id: string) => {
  const picture = readContactPicture(org.ctx(by), id);
  if (!picture.ok) return picture.code;
  const { type, body } = picture.value;
  return [type, [...new Uint8Array(await new Response(body).arrayBuffer())]];
};

describe('a picture of a contact', () => {
  eachContactDay();

  test('is put in place of the one there was, taken away, and brought back', async () => {
    const { id } = add('ines', { name: 'Marta Quill' });
    expect(contacts('ines')[0]?.picture).toBe(false);
    expect(value(set('ines', id, 1, JPEG)).contact).toMatchObject({ picture: true, version: 2 });
    expect(contacts('ines')[0]?.picture).toBe(true);
    expect(await read('ines', id)).toEqual(['image/jpeg', [...JPEG]]);
    value(set('ines', id, 2, PNG));
    expect(await read('ines', id)).toEqual(['image/png', [...PNG]]);
    const gone = value(set('ines', id, 3, null));
    expect(gone.contact?.picture).toBe(false);
    expect(await read('ines', id)).toBe('notFound');
    value(undoContact(org.ctx('ines'), trailByKey(org.db, gone.undo) as never));
    expect(await read('ines', id)).toEqual(['image/png', [...PNG]]);
  });

  test('goes out with the card in both versions, and comes in with it', async () => {
    const { id } = add('ines', { name: 'Marta Quill' });
    value(set('ines', id, 1, JPEG));
    for (const version of ['3.0', '4.0'] as const) {
      const { text } = value(exportContacts(org.ctx('ines'), book('ines'), version));
      value(importContacts(org.ctx('tomas'), book('tomas'), text.replace(/^UID:.*$/gm, `UID:${version}`)));
    }
    const came = contacts('tomas', book('tomas'));
    expect(came.map(({ picture }) => picture)).toEqual([true, true]);
    for (const one of came) expect(await read('tomas', one.id)).toEqual(['image/jpeg', [...JPEG]]);
  });

  test('is for whoever sees all of the contact, and changed by whoever may change it', async () => {
    const { id } = add('ines', { name: 'Marta Quill' });
    value(set('ines', id, 1, JPEG));
    give('tomas', { ...NO_RIGHTS, sight: 'outline' });
    expect([await read('tomas', id), code(set('tomas', id, 2, PNG))]).toEqual(['notFound', 'notFound']);
    expect(JSON.stringify(contacts('tomas'))).not.toContain('picture');
    give('amara', PRESETS.full);
    expect([await read('amara', id), code(set('amara', id, 2, PNG))]).toEqual([
      ['image/jpeg', [...JPEG]],
      'mayNotChange',
    ]);
    expect(await read('dario', id)).toBe('notFound');
  });

  test('private, it is left out with its contact', async () => {
    const { id } = add('ines', { name: 'Dr. Sol', visibility: 'private' });
    value(set('ines', id, 1, JPEG));
    give('amara', PRESETS.full);
    expect(await read('amara', id)).toBe('notFound');
  });

  test.each([
    ['what is no picture', new TextEncoder().encode('<svg onload="alert(1)"/>'), { picture: 'noPicture' }],
    ['what is too large', new Uint8Array(150_001).fill(0xff), { picture: 'pictureTooLarge:150' }],
    ['nothing', new Uint8Array(), { picture: 'noPicture' }],
  ])('%s is refused at its field', (_, bytes, wrong) => {
    const { id } = add('ines', { name: 'Marta Quill' });
    expect(fields(set('ines', id, 1, bytes))).toEqual(wrong);
    expect(value(readContact(org.ctx('ines'), id)).version).toBe(1);
  });

  test('the largest there may be still fits into its card, for files and for programs', () => {
    const { id } = add('ines', { name: 'Marta Quill', notes: 'x'.repeat(4000) });
    value(
      set(
        'ines',
        id,
        1,
        Uint8Array.from({ length: 150_000 }, (_, i) => JPEG[i] ?? 0),
      ),
    );
    const { text } = value(exportContacts(org.ctx('ines'), book('ines'), '3.0'));
    expect(text.length).toBeLessThan(256_000);
    const brought = value(importContacts(org.ctx('tomas'), book('tomas'), text));
    expect([brought.added, brought.problems]).toEqual([1, []]);
  });

  test('changed meanwhile, it is not overwritten', () => {
    const { id } = add('ines', { name: 'Marta Quill' });
    expect(code(set('ines', id, 0, JPEG))).toBe('changedMeanwhile');
  });

  test.each([
    ['only named by an address', 'PHOTO;VALUE=uri:https://pictures.example/1.jpg'],
    ['something else than it says', `PHOTO;ENCODING=b;TYPE=JPEG:${Buffer.from('<html>').toString('base64')}`],
    ['of a kind that could do something', `PHOTO;ENCODING=b;TYPE=SVG+XML:${Buffer.from('<svg/>').toString('base64')}`],
  ])('%s in a card, it is kept and not shown', async (_, line) => {
    const card = ['BEGIN:VCARD', 'VERSION:3.0', 'UID:1', 'FN:Marta', line, 'END:VCARD', ''].join('\r\n');
    value(importContacts(org.ctx('ines'), book('ines'), card));
    expect(await read('ines', contacts('ines')[0]?.id ?? '')).toBe('notFound');
    expect(value(exportContacts(org.ctx('ines'), book('ines'), '3.0')).text.replace(/\r\n /g, '')).toContain(line);
  });
});
