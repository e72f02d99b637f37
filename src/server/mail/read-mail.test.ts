import fc from 'fast-check';
import { expect, test } from 'vitest';
import { MOST_ITEMS_IN_MAIL, MOST_MEETINGS_IN_MAIL, readInvitations } from './read-invitations.ts';
import { readMail } from './read-mail.ts';

/* What strangers send, put together at random: whatever it is, it is read within bounds and never thrown at whoever reads. */

const header = fc.constantFrom(
  'From: a@b.example',
  'From: a@b.example, c@d.example',
  'Sender: x',
  'Subject: =?utf-8?q?=ZZ?=',
  'Content-Type: text/plain',
  'Content-Type: text/calendar; method=REQUEST; charset=utf-8',
  'Content-Type: text/calendar; charset=nonsense',
  'Content-Type: multipart/mixed; boundary=b',
  'Content-Type: multipart/mixed; boundary="b',
  'Content-Type: message/rfc822',
  'Content-Transfer-Encoding: base64',
  'Content-Transfer-Encoding: quoted-printable',
  'References: <a> <b> <',
  'Authentication-Results: x; (',
  ' folded',
);
const line = fc.constantFrom(
  '--b',
  '--b--',
  '',
  'BEGIN:VCALENDAR',
  'END:VCALENDAR',
  'METHOD:REQUEST',
  'METHOD:REPLY',
  'BEGIN:VEVENT',
  'END:VEVENT',
  'BEGIN:VTIMEZONE',
  'END:VTIMEZONE',
  'UID:u',
  'DTSTART:20270303T100000Z',
  'DTSTART;TZID=Own:20270303T100000',
  'TZID:Own',
  'RRULE:FREQ=SECONDLY',
  'ORGANIZER:mailto:a@b.example',
  'ATTENDEE;PARTSTAT=DELEGATED;DELEGATED-TO="mailto:x@y.example":mailto:a@b.example',
  'SEQUENCE:999999999999',
  '=3D=',
  '////',
  '\u0000',
);
const tree = fc
  .tuple(fc.array(header, { maxLength: 6 }), fc.array(fc.oneof(line, header), { maxLength: 60 }))
  .map(([head, body]) => [...head, '', ...body].join('\r\n'));

test('a mail made of anything is read', async () => {
  await fc.assert(
    fc.asyncProperty(tree, async (text) => {
      const mail = await readMail(Buffer.from(text));
      expect(mail.calendars.length).toBeLessThanOrEqual(5);
      const read = readInvitations(mail.calendars, mail.from?.address ?? '', ['Europe/Lisbon', 'America/Bogota']);
      for (const one of Object.values(read)) expect(one.messages.length).toBeLessThanOrEqual(MOST_ITEMS_IN_MAIL);
    }),
    { numRuns: 400, seed: 20_270_302 },
  );
});

test('of one mail so many items and meetings are read, on so many clocks, and what is left out is counted', () => {
  const event = (uid: string) =>
    [
      'BEGIN:VEVENT',
      `UID:${uid}`,
      'DTSTAMP:20270301T000000Z',
      'DTSTART:20270303T100000',
      'ORGANIZER:mailto:a@b.example',
      'ATTENDEE:mailto:c@d.example',
      'END:VEVENT',
    ].join('\r\n');
  const part = (from: number, count: number) =>
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'METHOD:REQUEST',
      ...Array.from({ length: count }, (_, i) => event(`u${from + i}`)),
      'END:VCALENDAR',
    ].join('\r\n');
  const clocks = ['Europe/Lisbon', 'America/Bogota', 'Asia/Tokyo', 'Africa/Lagos', 'Asia/Kolkata', 'Europe/Paris'];
  const read = readInvitations([part(0, 30), part(100, 30), part(200, 15)], 'a@b.example', clocks);
  expect(Object.keys(read)).toEqual(clocks.slice(0, 5));
  expect(read['Europe/Lisbon']).toMatchObject({ leftOut: 30 + 45 - MOST_MEETINGS_IN_MAIL });
  expect(read['Europe/Lisbon']?.messages).toHaveLength(MOST_MEETINGS_IN_MAIL);
});

test('a mail that says it is from two is from neither, and the same large mail digests the same', async () => {
  const two = await readMail(Buffer.from('From: a@b.example\r\nFrom: c@d.example\r\n\r\nx'));
  const list = await readMail(Buffer.from('From: a@b.example, c@d.example\r\n\r\nx'));
  expect([two.severalFrom, list.severalFrom]).toEqual([true, true]);
  const large = (end: string) => Buffer.from(`From: a@b.example\r\n\r\n${'x'.repeat(5_000_000)}${end}`);
  expect((await readMail(large('a'))).digest).toBe((await readMail(large('a'))).digest);
  expect((await readMail(large(''))).digest).not.toBe((await readMail(large('a'))).digest);
});
