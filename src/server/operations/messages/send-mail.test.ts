import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Mail } from '../../mail/mail.ts';
import { insertMail } from '../../repositories/outgoing-mail.ts';
import { type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { sendMail } from './send-mail.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

const MINUTE = 60_000;
const box = (address: string) => ({ name: null, address });
const mail = (to: string, subject: string): Mail => ({
  from: box('ines@cloudmoor.example'),
  sender: null,
  to: box(to),
  subject,
  text: 'Hello',
  meeting: null,
  inReplyTo: null,
  refs: [],
});
const put = (key: string, to: string) =>
  insertMail(org.db, {
    key,
    at: START,
    collectionId: null,
    meetingId: null,
    messageId: `<${key}@x>`,
    mail: mail(to, key),
  });
const stands = () =>
  org.db
    .all<{ key: string; sent_at: number | null; given_up: 0 | 1; tries: number }>(
      'SELECT key, sent_at, given_up, tries FROM outgoing_mail ORDER BY id',
    )
    .map(({ key, sent_at, given_up, tries }) => [key, sent_at !== null, given_up === 1, tries]);
const refused = (responseCode: number) => Object.assign(new Error('refused'), { responseCode });

test.each([
  [550, true],
  [554, true],
  [421, false],
  [451, false],
])('a %i answer is final: %s', async (code, final) => {
  put('a', 'nobody@quill.example');
  await sendMail(org.db, START, () => Promise.reject(refused(code)));
  expect(stands()).toEqual([['a', false, final, 1]]);
  let again = 0;
  await sendMail(org.db, START + MINUTE, async () => {
    again++;
  });
  expect(again).toBe(final ? 0 : 1);
});

test('one that hangs holds up its own address alone, and to each address mail goes in its order', async () => {
  put('hangs', 'slow@quill.example');
  put('waits', 'slow@quill.example');
  for (const n of [1, 2, 3]) put(`m${n}`, 'marta@quill.example');
  for (let n = 0; n < 12; n++) put(`p${n}`, `p${n}@quill.example`);
  const sent: string[] = [];
  let free: () => void = () => {};
  const held = new Promise<void>((done) => {
    free = done;
  });
  let others: () => void = () => {};
  const allOthers = new Promise<void>((done) => {
    others = done;
  });
  const all = sendMail(org.db, START, async ({ subject }) => {
    if (subject === 'hangs') await held;
    sent.push(subject);
    if (sent.length === 15) others();
  });
  await allOthers;
  expect(sent).not.toContain('waits');
  expect(sent.filter((key) => key.startsWith('m'))).toEqual(['m1', 'm2', 'm3']);
  free();
  await all;
  expect(sent.slice(-2)).toEqual(['hangs', 'waits']);
  expect(stands().every(([, done]) => done)).toBe(true);
});
