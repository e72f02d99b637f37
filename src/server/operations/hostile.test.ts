import fc from 'fast-check';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { firstOf } from '../repositories/shareables.ts';
import type { Result } from '../result.ts';
import { exportContacts, importContacts, listContacts } from './contacts/index.ts';
import { listMessages } from './messages/list-messages.ts';
import { takeMail } from './messages/receive-mail.ts';
import { type SmallOrganisation, smallOrganisation } from './small-organisation.ts';

/*
 * What strangers send: cards and mails that are broken anywhere, and more of everything than anybody means.
 */
let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
};
const book = (): string => firstOf(org.db, org.person('ines').id, 'contacts')?.key ?? '';
const arrived = (): string => firstOf(org.db, org.person('ines').id, 'arrived')?.key ?? '';
const here = () => value(listMessages(org.ctx('ines'), 'ines', { folder: arrived() })).threads;
const take = (raw: string | Buffer) =>
  takeMail(org.db, org.ctx('ines').now, Buffer.from(raw), [org.person('ines').address], null);

/** A text with some of its bytes gone, doubled, turned or put elsewhere. */
const mangled = (text: string): fc.Arbitrary<string> =>
  fc
    .array(
      fc.record({
        at: fc.nat({ max: text.length }),
        gone: fc.nat({ max: 12 }),
        put: fc.oneof(
          fc.constantFrom(
            '\r\n',
            '\n',
            ' ',
            ';',
            ':',
            '"',
            '\\',
            '\u0000',
            '\r\n ',
            '=',
            'BEGIN:VCARD\r\n',
            'END:VCARD\r\n',
            '--b',
            '💥',
            '\u202e',
          ),
          fc.string({ maxLength: 6 }),
        ),
      }),
      { minLength: 1, maxLength: 8 },
    )
    .map((cuts) => cuts.reduce((now, { at, gone, put }) => now.slice(0, at) + put + now.slice(at + gone), text));

const CARD = [
  'BEGIN:VCARD',
  'VERSION:4.0',
  'UID:urn:uuid:1',
  'FN:Marta Quill',
  'N:Quill;Marta;;;',
  'item1.EMAIL;TYPE=work;PREF=1:marta@quill.example',
  'TEL;VALUE=uri;TYPE="voice,home":tel:+351-900',
  'ADR;LABEL="Rua, 4":;;Rua do Cais 4;Faro;;;',
  'NOTE:Comes by train\\, never before ten.\\nTwo copies.',
  'PHOTO:data:image/png;base64,iVBORw0KGgo=',
  'BDAY:--0415',
  'END:VCARD',
  '',
].join('\r\n');

test('two thousand mangled cards are each taken in or named, and what came in goes out and comes in the same', () => {
  const cards = fc.sample(mangled(CARD), { numRuns: 2000, seed: 11 });
  for (let i = 0; i < cards.length; i += 100) {
    const text = cards.slice(i, i + 100).join('\r\n');
    const done = importContacts(org.ctx('ines'), book(), text);
    if (done.ok) expect(done.value.problems.length).toBeLessThanOrEqual(done.value.left);
    else expect(done.code).toBe('notCards');
  }
  expect(value(listContacts(org.ctx('ines'), book(), {})).contacts.length).toBeGreaterThan(0);
  for (const version of ['3.0', '4.0'] as const) {
    const { text } = value(exportContacts(org.ctx('ines'), book(), version));
    expect(value(importContacts(org.ctx('ines'), book(), text))).toMatchObject({ added: 0, changed: 0, left: 0 });
  }
});

const MAIL = [
  'From: "Marta Quill" <marta@quill.example>',
  'To: Ines <ines@cloudmoor.example>, =?utf-8?Q?Tom=C3=A1s?= <tomas@cloudmoor.example>',
  'Subject: =?utf-8?B?VGhlIGxlYXNl?=',
  'Date: Tue, 2 Mar 2027 08:00:00 +0000',
  'Message-ID: <1@quill.example>',
  'MIME-Version: 1.0',
  'Content-Type: multipart/mixed; boundary="b"',
  '',
  '--b',
  'Content-Type: text/plain; charset=utf-8',
  'Content-Transfer-Encoding: quoted-printable',
  '',
  'Signed=3F Could we meet Tuesday at three?',
  '--b',
  'Content-Type: application/pdf; name="lease.pdf"',
  'Content-Disposition: attachment; filename="lease.pdf"',
  'Content-Transfer-Encoding: base64',
  '',
  'JVBERi0xLjQ=',
  '--b--',
  '',
].join('\r\n');

test('mangled mails are each kept and read again, whatever is wrong with them', async () => {
  const mails = fc.sample(mangled(MAIL), { numRuns: 150, seed: 12 });
  for (const [i, mail] of mails.entries()) await take(mail.replace('<1@quill', `<${i}@quill`));
  const threads = here();
  expect(threads.length).toBeGreaterThan(0);
  expect(() => JSON.stringify(threads)).not.toThrow();
});

test('a mail to ten thousand, one of a thousand parts and one of 25 MB are kept, and nothing of them runs on', async () => {
  const many = Array.from({ length: 10_000 }, (_, i) => `P${i} <p${i}@crowd.example>`).join(',\r\n ');
  await take(`From: a@quill.example\r\nTo: ${many}\r\nSubject: To all\r\nMessage-ID: <m@q>\r\n\r\nHello`);
  const parts = Array.from(
    { length: 1000 },
    (_, i) =>
      `--b\r\nContent-Type: text/plain; name="${i}.txt"\r\nContent-Disposition: attachment; filename="${i}.txt"\r\n\r\n${i}`,
  );
  await take(
    `From: a@quill.example\r\nTo: ines@cloudmoor.example\r\nSubject: In parts\r\nMessage-ID: <p@q>\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n${parts.join('\r\n')}\r\n--b--\r\n`,
  );
  await take(
    `From: a@quill.example\r\nTo: ines@cloudmoor.example\r\nSubject: Large\r\nMessage-ID: <l@q>\r\n\r\n${'line of it\r\n'.repeat(2_100_000)}`,
  );
  const messages = here().flatMap((thread) => thread.messages);
  expect(messages.map(({ subject }) => subject).sort()).toEqual(['In parts', 'Large', 'To all']);
  expect(JSON.stringify(here()).length).toBeLessThan(1_000_000);
});
