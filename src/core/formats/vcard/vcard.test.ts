import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { ADDRESS_PLACES, type CardVersion, PHONE_PLACES } from '../../contacts/index.ts';
import { unfolded } from './lines.ts';
import { type ReadContact, readCards } from './read.ts';
import { type WrittenCard, writeCards } from './write.ts';

const read = (text: string) => {
  const found = readCards(text, 2000);
  if (found.kind !== 'read') throw new Error(found.kind);
  return found;
};
const card = (version: CardVersion, ...lines: string[]) =>
  ['BEGIN:VCARD', `VERSION:${version}`, ...lines, 'END:VCARD', ''].join('\r\n');
const one = (text: string): ReadContact => {
  const { contacts, problems } = read(text);
  expect(problems).toEqual([]);
  return contacts[0] as ReadContact;
};
/** A contact that was read, as it is written while nobody changed it. */
const unchanged = ({ line: _line, uid, ...contact }: ReadContact): WrittenCard => ({
  ...contact,
  uid: uid ?? 'made',
  changedAt: null,
});
const ours = (line: string) => !/^(BEGIN|END|VERSION|PRODID|UID)[:;]/.test(line);
const linesOf = (text: string) => unfolded(text).filter(ours);

const word = fc
  .string({ minLength: 1, maxLength: 40, unit: 'grapheme' })
  .map((s) => s.replace(/\s+/g, ' ').trim())
  .filter((s) => s !== '' && !/[\p{Cc}\u2028\u2029]/u.test(s));
const ways = <W extends string>(value: fc.Arbitrary<string>, places: readonly W[]) =>
  fc.uniqueArray(fc.record({ value, as: fc.constantFrom(...places) }), { maxLength: 4, selector: (way) => way.value });
const written: fc.Arbitrary<WrittenCard> = fc.record({
  uid: fc.uuid(),
  name: word,
  role: fc.option(word),
  organisation: fc.option(word),
  place: fc.option(word),
  link: fc.option(fc.webUrl()),
  notes: fc.option(word.map((w) => `${w}\n\n${w}; \\ , :`)),
  addresses: ways(fc.emailAddress(), ADDRESS_PLACES),
  phones: ways(
    fc.integer({ min: 1_000_000, max: 9_999_999 }).map((n) => `+351 21 ${n}`),
    PHONE_PLACES,
  ),
  categories: fc.uniqueArray(word, { maxLength: 4 }),
  visibility: fc.constantFrom('follow' as const, 'open' as const, 'outline' as const, 'private' as const),
  version: fc.constantFrom('3.0' as const, '4.0' as const),
  kept: fc.constant([]),
  changedAt: fc.constant(1_803_978_000_000),
});
const FULL = card(
  '3.0',
  'UID:urn:x:1',
  'N:Varga;Inés;Maria,Ana;Dr.;',
  'FN:Dr. Inés Varga',
  'SORT-STRING:Varga',
  'NICKNAME:Ina',
  'ORG:Quill\\; Sons;Audit;Second floor',
  'TITLE:Auditor\\, senior',
  'item1.EMAIL;TYPE=INTERNET,pref;TYPE=work:ines@quill.example',
  'item1.X-LABEL:the first',
  'EMAIL;TYPE=home:i.varga@home.example',
  'TEL;TYPE="WORK,VOICE":+351 21 000 111',
  'TEL;TYPE=CELL,WORK:+351 91 222 333',
  'ADR;TYPE=work:;;Rua Nova 1;Faro;;8000;Portugal',
  'LABEL;TYPE=work:Rua Nova 1\\nFaro',
  'NOTE:Reads on trains.\\nPrefers tea\\, not coffee.',
  'NOTE:A second note.',
  'CATEGORIES:audit,board\\, old',
  'URL:https://quill.example/a,b',
  'URL:https://second.example',
  'BDAY:1970-04-15',
  'GEO:37.01;-7.93',
  'PHOTO;ENCODING=b;TYPE=JPEG:/9j/4AAQSkZJRg==',
  'CLASS:PRIVATE',
  'REV:2026-11-02T10:11:12Z',
  'X-ANYTHING;X-P="a;b:c":as; it, stands',
);

describe('cards of contacts', () => {
  test('read back are what was written, in both versions', () => {
    fc.assert(
      fc.property(
        fc.array(written, { minLength: 1, maxLength: 5 }),
        fc.constantFrom('3.0' as const, '4.0' as const),
        (cards, version) => {
          const back = read(writeCards(cards, version));
          expect(back.problems).toEqual([]);
          expect(back.contacts.map(({ kept: _k, line: _l, version: _v, ...rest }) => rest)).toEqual(
            cards.map(({ kept: _k, version: _v, changedAt: _c, ...rest }) => rest),
          );
        },
      ),
    );
  });

  test('a card from elsewhere is read', () => {
    const { kept: _kept, line: _line, ...fields } = one(FULL);
    expect(fields).toEqual({
      uid: 'urn:x:1',
      version: '3.0',
      name: 'Dr. Inés Varga',
      role: 'Auditor, senior',
      organisation: 'Quill; Sons',
      place: 'Rua Nova 1, Faro, 8000, Portugal',
      link: 'https://quill.example/a,b',
      addresses: [
        { value: 'ines@quill.example', as: 'work' },
        { value: 'i.varga@home.example', as: 'home' },
      ],
      phones: [
        { value: '+351 21 000 111', as: 'work' },
        { value: '+351 91 222 333', as: 'mobile' },
      ],
      notes: 'Reads on trains.\nPrefers tea, not coffee.\n\nA second note.',
      categories: ['audit', 'board, old'],
      visibility: 'private',
    });
  });

  test('nothing of it is lost: unchanged, every line stands as it stood', () => {
    expect(linesOf(writeCards([unchanged(one(FULL))], '3.0'))).toEqual(linesOf(FULL));
  });

  test('what is changed is said anew, and all else stands', () => {
    const was = one(FULL);
    const [, second] = was.phones;
    const text = writeCards(
      [{ ...unchanged(was), role: 'Partner', phones: second ? [second] : [], changedAt: Date.UTC(2027, 2, 2, 9) }],
      '3.0',
    );
    const [before, after] = [linesOf(FULL), linesOf(text)];
    expect(before.filter((line) => !after.includes(line))).toEqual([
      'TITLE:Auditor\\, senior',
      'TEL;TYPE="WORK,VOICE":+351 21 000 111',
      'REV:2026-11-02T10:11:12Z',
    ]);
    expect(after.filter((line) => !before.includes(line))).toEqual(['TITLE:Partner', 'REV:2027-03-02T09:00:00Z']);
    expect(one(text)).toMatchObject({ name: was.name, role: 'Partner', notes: was.notes });
  });

  test('into the other version and back nothing is lost, and each says what its version can read', () => {
    const four = writeCards([unchanged(one(FULL))], '4.0');
    const lines = linesOf(four);
    expect(lines).toContain('item1.EMAIL;TYPE=internet,work;PREF=1:ines@quill.example');
    expect(lines).toContain('PHOTO:data:image/jpeg;base64,/9j/4AAQSkZJRg==');
    expect(lines).toContain('BDAY:19700415');
    expect(lines).toContain('GEO:geo:37.01,-7.93');
    expect(lines).toContain('REV:20261102T101112Z');
    expect(lines.some((line) => /^(SORT-STRING|LABEL|CLASS)[;:]/.test(line))).toBe(false);
    const read4 = one(four);
    const same = ({ kept: _k, line: _l, version: _v, ...rest }: ReadContact) => rest;
    expect(same(read4)).toEqual(same(one(FULL)));
    const three = writeCards([unchanged(read4)], '3.0');
    expect(same(one(three))).toEqual(same(one(FULL)));
    const told = (line: string) => line.toUpperCase().replace(/;[^:]*/, '');
    expect(linesOf(three).map(told).toSorted()).toEqual(linesOf(FULL).map(told).toSorted());
  });

  test('a card of the newer version stands in the older, with what that doesn’t know under another name', () => {
    const text = card(
      '4.0',
      'FN:Cloud',
      'KIND:org',
      'BDAY:--0415',
      'TEL;VALUE=uri;PREF=1;TYPE="voice,home":tel:+351-1',
      'PHOTO:data:image/png;base64,AAAA',
      'N;ALTID=1:Cloud;;;;',
    );
    const lines = linesOf(writeCards([unchanged(one(text))], '3.0'));
    expect(lines).toContain('X-PARAMO-4-KIND:org');
    expect(lines).toContain('X-PARAMO-4-BDAY:--0415');
    expect(lines).toContain('TEL;PREF=1;TYPE="voice,home";TYPE=pref:+351-1');
    expect(lines).toContain('PHOTO;ENCODING=b;TYPE=PNG:AAAA');
    const back = linesOf(writeCards([unchanged(one(writeCards([unchanged(one(text))], '3.0')))], '4.0'));
    expect(back).toEqual(expect.arrayContaining(['KIND:org', 'BDAY:--0415', 'PHOTO:data:image/png;base64,AAAA']));
  });

  test('who has no name is called by what there is; who has nothing is refused', () => {
    expect(one(card('3.0', 'N:Varga;Inés;;;', 'FN:')).name).toBe('Inés Varga');
    expect(one(card('4.0', 'FN:', 'ORG:Quill')).name).toBe('Quill');
    expect(one(card('4.0', 'FN:', 'EMAIL:a@b.example')).name).toBe('a@b.example');
    const codes = (text: string) => read(text).problems.map(({ code, line }) => `${code} ${line}`);
    expect(codes(card('4.0', 'NOTE:nobody'))).toEqual(['nameless 1']);
    expect(codes('BEGIN:VCARD\nVERSION:2.1\nFN:Old\nEND:VCARD')).toEqual(['cardVersion 1']);
    expect(codes('BEGIN:VCARD\nVERSION:4.0\nFN:A\nBEGIN:VCARD\nVERSION:4.0\nFN:B\nEND:VCARD')).toEqual(['unended 1']);
    expect(codes(card('4.0', 'UID:1', 'FN:A') + card('4.0', 'UID:1', 'FN:B'))).toEqual(['twice 6']);
    expect(codes(card('4.0', 'FN:A', `NOTE:${'x'.repeat(300_000)}`))).toEqual(['cardTooLarge 1']);
    expect(readCards('Dear all', 10)).toEqual({ kind: 'notCards' });
    expect(readCards(card('4.0', 'FN:A').repeat(11), 10)).toEqual({ kind: 'tooMany' });
  });

  test('what is more or longer than a field takes stays in its line', () => {
    const many = Array.from({ length: 30 }, (_, i) => `EMAIL:a${i}@b.example`);
    const text = card(
      '4.0',
      'FN:A',
      ...many,
      `TITLE:${'x'.repeat(400)}`,
      'URL:mailto:a@b.example',
      `NOTE:${'n'.repeat(30_000)}`,
    );
    const contact = one(text);
    expect(contact).toMatchObject({ role: null, link: null });
    expect(contact.addresses).toHaveLength(20);
    expect(contact.notes).toHaveLength(20_000);
    const lines = linesOf(writeCards([unchanged(contact)], '4.0'));
    expect(linesOf(text).filter((line) => !lines.includes(line))).toEqual([]);
  });

  test('whatever stands in a card comes back as it stood, also where no field takes it', () => {
    const value = fc.stringMatching(/^[ -~äé€]{0,40}$/);
    const names = [
      'TITLE',
      'ORG',
      'ADR',
      'URL',
      'EMAIL',
      'TEL',
      'NOTE',
      'CATEGORIES',
      'LABEL',
      'N',
      'CLASS',
      'BDAY',
      'GEO',
      'X-A',
      'a.X-B',
    ];
    const line = fc.tuple(fc.constantFrom(...names), value).map(([name, text]) => `${name}:${text}`);
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 12 }),
        fc.constantFrom('3.0' as const, '4.0' as const),
        (lines, version) => {
          const text = card(version, 'FN:Some body', ...lines);
          const contact = one(text);
          const written = writeCards([unchanged(contact)], version);
          const there = linesOf(written);
          expect(linesOf(text).filter((was) => !there.includes(was))).toEqual([]);
          // Read and written again it is the same: nothing is added each time.
          expect(linesOf(writeCards([unchanged(one(written))], version))).toEqual(there);
        },
      ),
    );
  });

  test('what is set later is read back, though another line of its kind stays', () => {
    const contact = one(card('4.0', 'FN:A', 'ORG:;Unit', `TITLE:${'x'.repeat(400)}`, 'URL:mailto:a@b.example'));
    const text = writeCards(
      [{ ...unchanged(contact), organisation: 'Quill', role: 'Clerk', link: 'https://q.example', changedAt: 0 }],
      '4.0',
    );
    expect(one(text)).toMatchObject({ organisation: 'Quill', role: 'Clerk', link: 'https://q.example' });
    expect(linesOf(text)).toEqual(expect.arrayContaining(['ORG:;Unit', 'URL:mailto:a@b.example']));
  });

  test('a name of ours brings back what was put under it, and nothing that makes a card of its own', () => {
    const forged = ['END:VCARD', 'BEGIN:VCARD', 'VERSION:4.0', 'UID:other', 'FN:Forged', 'X-ANY:1'];
    const contact = one(
      card('3.0', 'UID:one', 'FN:A', ...forged.map((line) => `X-PARAMO-4-${line}`), 'X-PARAMO-4-KIND:org'),
    );
    const { contacts } = read(writeCards([unchanged(contact)], '4.0'));
    expect(contacts.map(({ uid, name }) => [uid, name])).toEqual([['one', 'A']]);
    expect(linesOf(writeCards([unchanged(contact)], '4.0'))).toContain('KIND:org');
  });

  test('any text is read without a word, and any lines come back', () => {
    const line = fc.oneof(
      fc.string({ unit: 'grapheme', maxLength: 60 }),
      fc.constantFrom(
        'FN:A',
        'N:;;',
        'TEL:',
        'ADR:;;a',
        'ORG:;',
        'CATEGORIES:,,',
        'PHOTO;ENCODING=b:x',
        'EMAIL;TYPE=:x',
        'BDAY:1',
        'GEO:x',
        'a.b.FN:x',
      ),
    );
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 12 }),
        fc.constantFrom('3.0' as const, '4.0' as const),
        (lines, version) => {
          const found = readCards(card(version, 'FN:Some body', ...lines), 50);
          if (found.kind !== 'read') return;
          for (const contact of found.contacts) {
            for (const to of ['3.0', '4.0'] as const) {
              const again = read(writeCards([unchanged(contact)], to));
              expect(again.contacts.map(({ name }) => name)).toEqual([contact.name]);
            }
          }
        },
      ),
    );
  });
});
