import { afterEach, beforeEach, expect, test } from 'vitest';
import { type NewItem, newItem } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { itemByKey, itemsByUid } from '../../repositories/items.ts';
import { answerItem, changeMeeting, createMeeting, readMeeting, releaseDue, undoSeveral } from '../meetings/index.ts';
import { at, type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { listMessages, takeMessage } from './list-messages.ts';
import { takeMail } from './receive-mail.ts';

const HOST = 'mx.cloudmoor.example';
const MARTA = 'marta@quill-audit.example';
const INES = 'ines@cloudmoor.example';
let org: SmallOrganisation;
let now = START;
beforeEach(() => {
  org = smallOrganisation(['ines', 'tomas', 'bruno']);
  org.give('ines', 'tomas', PRESETS.delegate);
  now = START;
});
afterEach(() => org.close());

/** One event of a scheduling message: what isn't said is an invitation of Marta's to Inés, on 3 March at ten. */
function event(method: string, lines: Readonly<Record<string, string>> = {}): string {
  const all: Record<string, string> = {
    UID: 'audit-1',
    SEQUENCE: '0',
    DTSTAMP: '20270301T080000Z',
    DTSTART: '20270303T100000Z',
    DTEND: '20270303T110000Z',
    SUMMARY: 'Audit',
    ORGANIZER: `mailto:${MARTA}`,
    ATTENDEE: `mailto:${INES}`,
    ...lines,
  };
  const body = Object.entries(all)
    .filter(([, value]) => value !== '')
    .map(([name, value]) => (name.includes(';') ? `${name}:${value}` : `${name}:${value}`));
  const head = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//x//EN', ...(method ? [`METHOD:${method}`] : [])];
  return [...head, 'BEGIN:VEVENT', ...body, 'END:VEVENT', 'END:VCALENDAR', ''].join('\r\n');
}

let sent = 0;
async function arrive(
  calendar: string,
  more: {
    from?: string;
    vouched?: boolean;
    field?: string;
    type?: string;
    to?: string;
    id?: string;
    envelope?: string[];
  } = {},
): Promise<void> {
  const { from = MARTA, vouched = true, type = 'text/calendar', to = INES } = more;
  const { field = `${HOST}; dmarc=pass header.from=${from.split('@')[1]}` } = more;
  const raw = [
    ...(vouched ? [`Authentication-Results: ${field}`] : []),
    `From: ${from}`,
    `To: ${to}`,
    'Subject: See the calendar',
    `Message-ID: <${more.id ?? `m${++sent}`}@x.example>`,
    `Content-Type: ${type}; charset=utf-8`,
    '',
    calendar,
  ].join('\r\n');
  now += 1000;
  const bytes = Buffer.from(raw);
  await takeMail(org.db, now, bytes, more.envelope ?? [], HOST);
}

const items = (uid = 'audit-1') => itemsByUid(org.db, mainCalendarOf(org.db, org.person('ines').id)?.id ?? 0, uid);
const threads = (by = 'ines') => {
  const listed = listMessages(org.ctx(by, now), 'ines', {});
  return listed.ok ? listed.value.threads : [];
};
const kinds = () => threads()[0]?.messages.map((m) => `${m.kind}${m.why ? ` ${m.why}` : ''}`);

test('an invitation stands unanswered, a newer one changes it, an older one and the same once more change nothing', async () => {
  await arrive(event('REQUEST'), { id: 'one' });
  expect(items()).toMatchObject([{ title: 'Audit', ownerAnswer: 'needs-action', ownerInvited: true }]);
  await arrive(event('REQUEST', { SEQUENCE: '2', DTSTART: '20270304T100000Z', DTEND: '20270304T110000Z' }));
  await arrive(event('REQUEST', { SEQUENCE: '1', SUMMARY: 'Older' }));
  await arrive(event('REQUEST'), { id: 'one' });
  expect(items()).toMatchObject([{ title: 'Audit', start: Date.UTC(2027, 2, 4, 10) }]);
  expect(kinds()).toEqual(['invitation', 'change', 'change']);
  await arrive(event('CANCEL', { SEQUENCE: '3', STATUS: 'CANCELLED' }));
  expect(items()[0]?.cancelled).toBe(true);
});

test('what another than its organiser says of a meeting is a claim; what says it is from one of ours has to be vouched for', async () => {
  await arrive(event('REQUEST'));
  const vane = 'vane@elsewhere.example';
  await arrive(event('CANCEL', { SEQUENCE: '5', ORGANIZER: `mailto:${vane}` }), { from: vane });
  await arrive(event('REQUEST', { SEQUENCE: '6', SUMMARY: 'Taken over', ORGANIZER: `mailto:${vane}` }), { from: vane });
  await arrive(event('REQUEST', { SEQUENCE: '7', SUMMARY: 'Taken over' }), { from: vane });
  expect(items()).toMatchObject([{ title: 'Audit', cancelled: false, organiser: { address: MARTA } }]);
  expect(kinds()).toEqual([
    'invitation',
    'question otherOrganiser',
    'question otherOrganiser',
    'question otherOrganiser',
  ]);
  const forged = { UID: 'pay-1', SUMMARY: 'Pay now', ORGANIZER: 'mailto:bruno@cloudmoor.example' };
  await arrive(event('REQUEST', forged), { from: 'bruno@cloudmoor.example', vouched: false });
  expect(items('pay-1')).toEqual([]);
  const [waits] = threads().find((t) => t.title === 'Pay now')?.messages ?? [];
  expect(waits).toMatchObject({ kind: 'question', why: 'notChecked', pending: true, checked: false });
});

test('of an invitation nobody vouches for, the first stands and all that follows waits for a press', async () => {
  await arrive(event('REQUEST'), { vouched: false });
  await arrive(event('REQUEST', { SEQUENCE: '1', SUMMARY: 'Audit, moved' }), { vouched: false });
  expect(items()[0]?.title).toBe('Audit');
  const waits = threads()[0]?.messages.find((m) => m.pending);
  expect(takeMessage(org.ctx('bruno', now), waits?.key ?? '')).toMatchObject({ code: 'notFound' });
  expect(takeMessage(org.ctx('tomas', now), waits?.key ?? '')).toMatchObject({ ok: true });
  expect(items()[0]?.title).toBe('Audit, moved');
});

test('the method inside the text wins over the header’s, and the header’s counts where there is none', async () => {
  await arrive(event(''), { type: 'text/calendar; method=REQUEST' });
  expect(items()).toHaveLength(1);
  await arrive(event('CANCEL', { SEQUENCE: '1' }), { type: 'text/calendar; method=REQUEST' });
  expect(items()[0]?.cancelled).toBe(true);
  await arrive(event('', { UID: 'none' }));
  expect(items('none')).toEqual([]);
  expect(threads().find((t) => t.kind === 'mail')?.messages[0]?.mark).toBe('unreadable');
});

test('whoever isn’t asked has no part in it; a private invitation begins private; nobody’s mail is kept unseen', async () => {
  await arrive(event('REQUEST', { ATTENDEE: 'mailto:bruno@cloudmoor.example' }));
  expect([items(), kinds()]).toEqual([[], ['question notInvited']]);
  await arrive(event('REQUEST', { UID: 'p', CLASS: 'PRIVATE', SUMMARY: 'Salary' }));
  expect(items('p')[0]?.visibility).toBe('private');
  expect(JSON.stringify(threads('tomas'))).not.toContain('Salary');
  await arrive(event('REQUEST', { UID: 'q' }), { envelope: ['gone@cloudmoor.example'] });
  expect(items('q')).toEqual([]);
  const mine = listMessages(org.ctx('ines', now), 'ines', {});
  expect(mine).toMatchObject({ ok: true, value: { forNobody: 1 } });
});

test('a series, one of its occurrences on another clock, and the end of all of it, in whatever order they come', async () => {
  const series = event('REQUEST', {
    'DTSTART;TZID=Europe/Lisbon': '20270303T100000',
    'DTEND;TZID=Europe/Lisbon': '20270303T110000',
    DTSTART: '',
    DTEND: '',
    RRULE: 'FREQ=WEEKLY;COUNT=4',
  });
  const one = event('REQUEST', {
    'RECURRENCE-ID': '20270310T100000Z',
    DTSTART: '20270310T150000Z',
    DTEND: '20270310T160000Z',
    SEQUENCE: '1',
  });
  await arrive(one);
  await arrive(series);
  const [whole, apart] = [items().find((i) => i.recurrence === null), items().find((i) => i.recurrence !== null)];
  expect(apart).toMatchObject({ seriesId: whole?.id, start: Date.UTC(2027, 2, 10, 15) });
  await arrive(event('CANCEL', { SEQUENCE: '2', 'RECURRENCE-ID;TZID=Europe/Lisbon': '20270317T100000' }));
  expect(items().find((i) => i.recurrence === null)?.left).toEqual(['2027-03-17T10:00:00']);
  await arrive(event('CANCEL', { SEQUENCE: '3' }));
  expect(items().map((i) => i.cancelled)).toEqual([true, true]);
});

test('an item of her own that goes by the same name stays what it is', async () => {
  const { id } = org.add('ines', 'ines', { title: 'Mine' });
  const uid = org.db.get<{ uid: string }>('SELECT uid FROM item WHERE key = ?', id)?.uid ?? '';
  await arrive(event('REQUEST', { UID: uid, SUMMARY: 'Theirs' }));
  expect(items(uid)).toMatchObject([{ title: 'Mine', ownerInvited: false }]);
  await arrive(
    event('REPLY', {
      UID: uid,
      'ATTENDEE;PARTSTAT=ACCEPTED': `mailto:${MARTA}`,
      ATTENDEE: '',
      ORGANIZER: `mailto:${INES}`,
    }),
  );
  expect(readMeeting(org.ctx('ines', now), id)).toMatchObject({ ok: true, value: { part: 'none' } });
});

test('who says they were sent by somebody isn’t taken at their word: of one inside nothing is done, of another house a person decides', async () => {
  await arrive(event('REQUEST'));
  const vane = 'vane@elsewhere.example';
  const by = (organiser: string) => ({ ORGANIZER: '', [`ORGANIZER;SENT-BY="mailto:${vane}"`]: `mailto:${organiser}` });
  await arrive(event('CANCEL', { SEQUENCE: '5', ...by(MARTA) }), { from: vane });
  expect(items()[0]?.cancelled).toBe(false);
  const waits = threads()[0]?.messages.find((m) => m.why === 'notTheirs');
  expect(waits).toMatchObject({ kind: 'question', pending: true });
  await arrive(event('REQUEST', { UID: 'pay', SUMMARY: 'Pay now', ...by('bruno@cloudmoor.example') }), { from: vane });
  expect(items('pay')).toEqual([]);
  expect(threads().find((t) => t.title === 'Pay now')?.messages).toMatchObject([{ why: 'notTheirs', pending: false }]);
  expect(takeMessage(org.ctx('ines', now), waits?.key ?? '')).toMatchObject({ ok: true });
  expect(items()[0]?.cancelled).toBe(true);
  // Somebody of the organiser's own house speaks for them.
  const lena = 'lena@quill-audit.example';
  const own = { ORGANIZER: '', [`ORGANIZER;SENT-BY="mailto:${lena}"`]: `mailto:${MARTA}` };
  await arrive(event('REQUEST', { UID: 'own', ...own }), { from: lena });
  expect(items('own')).toMatchObject([{ ownerAnswer: 'needs-action' }]);
});

test('what is taken from outside says nothing of what was answered here, and stays from outside', async () => {
  const forged = { UID: 'pay', ORGANIZER: 'mailto:bruno@cloudmoor.example', ATTENDEE: '' };
  const calendar = event('REQUEST', { ...forged, 'ATTENDEE;PARTSTAT=ACCEPTED': `mailto:${INES}` });
  await arrive(calendar, { from: 'bruno@cloudmoor.example', vouched: false });
  const waits = threads()[0]?.messages[0];
  expect(takeMessage(org.ctx('ines', now), waits?.key ?? '')).toMatchObject({ ok: true });
  expect(items('pay')).toMatchObject([{ ownerAnswer: 'needs-action' }]);
  expect(threads()[0]?.messages.map((m) => m.checked)).toEqual([false, false]);
});

test('a delegate who isn’t let into what is private reads no message of a private occurrence, nor of a private question', async () => {
  await arrive(event('REQUEST', { RRULE: 'FREQ=WEEKLY;COUNT=4' }));
  const one = { 'RECURRENCE-ID': '20270310T100000Z', DTSTART: '20270310T150000Z', DTEND: '20270310T160000Z' };
  await arrive(event('REQUEST', { ...one, SEQUENCE: '1', SUMMARY: 'Severance' }));
  expect(JSON.stringify(threads('tomas'))).toContain('T15:00:00');
  const apart = items().find((i) => i.recurrence !== null);
  org.db.run(`UPDATE item SET visibility = 'private' WHERE id = ?`, apart?.id ?? 0);
  expect(JSON.stringify(threads('tomas'))).not.toContain('T15:00:00');
  expect(JSON.stringify(threads('tomas'))).toContain('Audit');
  expect(JSON.stringify(threads())).toContain('T15:00:00');
  const notHers = { UID: 'x', CLASS: 'PRIVATE', SUMMARY: 'Clinic', ATTENDEE: 'mailto:bruno@cloudmoor.example' };
  await arrive(event('REQUEST', notHers));
  expect(JSON.stringify(threads('tomas'))).not.toContain('Clinic');
  expect(JSON.stringify(threads())).toContain('Clinic');
});

const answer = (of: string, params: string, more: Record<string, string> = {}) =>
  event('REPLY', {
    UID: of,
    ATTENDEE: '',
    ORGANIZER: `mailto:${INES}`,
    [`ATTENDEE;${params}`]: `mailto:${MARTA}`,
    ...more,
  });
const MALLORY = 'mallory@evil.example';

/** A meeting of Inés's with Marta, sent; its UID. */
function called(fields: Partial<NewItem> = {}): string {
  const input = newItem.parse({
    title: 'Budget',
    when: at('2027-03-04', 10),
    people: [{ address: MARTA, name: 'Marta', role: 'must' }],
    ...fields,
  });
  const made = createMeeting(org.ctx('ines', now), org.calendar('ines'), input);
  now += 20_000;
  releaseDue(org.db, now);
  const key = made.ok ? (made.value.item?.id ?? '') : '';
  return org.db.get<{ uid: string }>('SELECT uid FROM item WHERE key = ?', key)?.uid ?? '';
}
const attendeesOf = (uid: string) => items(uid)[0]?.attendees.map((one) => `${one.address} ${one.answer}`);
const mailed = () =>
  org.db.all<{ to_address: string }>('SELECT to_address FROM outgoing_mail').map((m) => m.to_address);
const question = (why: string) => threads()[0]?.messages.find((m) => m.why === why);

test('SENT-BY proves nothing: a stranger answers for nobody, and sends nobody', async () => {
  const uid = called();
  await arrive(answer(uid, `PARTSTAT=ACCEPTED;SENT-BY="mailto:${MALLORY}"`), { from: MALLORY });
  await arrive(
    answer(uid, `PARTSTAT=DELEGATED;DELEGATED-TO="mailto:${MALLORY}";SENT-BY="mailto:${MALLORY}"`, { SEQUENCE: '1' }),
    { from: MALLORY },
  );
  expect(attendeesOf(uid)).toEqual([`${MARTA} needs-action`]);
  expect(mailed()).toEqual([MARTA]);
  expect(threads()[0]?.messages.filter((m) => m.why === 'notTheirs')).toMatchObject([
    { pending: true, sentInstead: null },
    { pending: true, sentInstead: MALLORY },
  ]);
  // A person may say so.
  expect(takeMessage(org.ctx('ines', now), question('notTheirs')?.key ?? '')).toMatchObject({ ok: true });
  expect(attendeesOf(uid)).toEqual([`${MARTA} accepted`]);
});

test('of one’s own domain somebody answers where the mail host vouches for them and not just anybody has an address there', async () => {
  const desk = 'desk@quill-audit.example';
  const uid = called();
  const reply = answer(uid, `PARTSTAT=TENTATIVE;SENT-BY="mailto:${desk}"`);
  await arrive(reply, { from: desk, vouched: false });
  expect(attendeesOf(uid)).toEqual([`${MARTA} needs-action`]);
  await arrive(reply, { from: desk });
  expect(attendeesOf(uid)).toEqual([`${MARTA} tentative`]);
  const free = called({ people: [{ address: 'org@freemail.example', name: null, role: 'must', group: null }] });
  const evil = 'evil@freemail.example';
  const other = answer(free, `PARTSTAT=DECLINED;SENT-BY="mailto:${evil}"`).replaceAll(
    `:mailto:${MARTA}`,
    ':mailto:org@freemail.example',
  );
  await arrive(other, { from: evil });
  expect(attendeesOf(free)).toEqual(['org@freemail.example needs-action']);
});

test('whom an attendee sends instead is asked, and hears of it, when a person says so', async () => {
  const piet = 'piet@quill-audit.example';
  const uid = called({ notes: 'Figures' });
  await arrive(answer(uid, `PARTSTAT=DELEGATED;DELEGATED-TO="mailto:${piet}"`));
  expect(attendeesOf(uid)).toEqual([`${MARTA} declined`]);
  expect(mailed()).toEqual([MARTA]);
  expect(question('sentInstead')).toMatchObject({ pending: true, sentInstead: piet });
  expect(takeMessage(org.ctx('tomas', now), question('sentInstead')?.key ?? '')).toMatchObject({ ok: true });
  expect(attendeesOf(uid)).toEqual([`${MARTA} declined`, `${piet} needs-action`]);
});

test('of a known meeting its organiser is spoken for by whom its first invitation came from, and by nobody else', async () => {
  const by = (address: string) => ({
    ORGANIZER: '',
    [`ORGANIZER;SENT-BY="mailto:${address}"`]: 'mailto:org@freemail.example',
  });
  await arrive(event('REQUEST', { UID: 'theirs', ORGANIZER: 'mailto:org@freemail.example' }), {
    from: 'org@freemail.example',
  });
  const evil = 'evil@freemail.example';
  await arrive(event('REQUEST', { UID: 'theirs', SEQUENCE: '3', SUMMARY: 'Moved', ...by(evil) }), { from: evil });
  await arrive(event('CANCEL', { UID: 'theirs', SEQUENCE: '4', ...by(evil) }), { from: evil });
  expect(items('theirs')).toMatchObject([{ title: 'Audit', cancelled: false }]);
  // The same domain is enough to ask for the first time, and who asked then goes on.
  const lena = 'lena@quill-audit.example';
  const own = { ORGANIZER: '', [`ORGANIZER;SENT-BY="mailto:${lena}"`]: `mailto:${MARTA}` };
  await arrive(event('REQUEST', { UID: 'own', ...own }), { from: lena });
  await arrive(event('REQUEST', { UID: 'own', SEQUENCE: '1', SUMMARY: 'By Lena', ...own }), { from: lena });
  const kees = 'kees@quill-audit.example';
  const other = { ORGANIZER: '', [`ORGANIZER;SENT-BY="mailto:${kees}"`]: `mailto:${MARTA}` };
  await arrive(event('REQUEST', { UID: 'own', SEQUENCE: '2', SUMMARY: 'By Kees', ...other }), { from: kees });
  expect(items('own')).toMatchObject([{ title: 'By Lena' }]);
});

test.each([
  ['a result within a quoted string', `${HOST}; spf=fail reason="; dmarc=pass header.from=quill-audit.example"`],
  ['a result within a comment', `${HOST}; spf=fail (; dmarc=pass header.from=quill-audit.example)`],
  ['DMARC without whom it is about', `${HOST}; dmarc=pass`],
  ['DKIM without whom it is about', `${HOST}; dkim=pass`],
  ['DMARC of another domain', `${HOST}; dmarc=pass header.from=evil.example`],
  ['DMARC that failed', `${HOST}; dmarc=fail header.from=quill-audit.example; dkim=pass header.d=quill-audit.example`],
  ['two domains at once', `${HOST}; dmarc=pass header.from=quill-audit.example header.from=evil.example`],
  ['another host', 'mx.evil.example; dmarc=pass header.from=quill-audit.example'],
])('%s vouches for nobody', async (_, field) => {
  await arrive(event('REQUEST', { UID: 'known' }), { vouched: false });
  await arrive(event('REQUEST', { UID: 'known', SEQUENCE: '1', SUMMARY: 'Forged' }), { field });
  expect(items('known')).toMatchObject([{ title: 'Audit' }]);
  expect(question('notChecked')).toMatchObject({ pending: true, checked: false });
});

test('one mail has a most of meetings, and one sender of new invitations in a day; what is beyond is kept and said', async () => {
  const many = (name: string, count: number) =>
    Array.from(
      { length: count },
      (_, i) => /BEGIN:VEVENT[\s\S]*END:VEVENT\r\n/.exec(event('REQUEST', { UID: `${name}-${i}` }))?.[0],
    ).join('');
  const mailOf = (name: string, count: number) =>
    event('REQUEST').replace(/BEGIN:VEVENT[\s\S]*END:VEVENT\r\n/, () => many(name, count));
  const standing = () => org.db.get<{ n: number }>('SELECT count(*) AS n FROM item')?.n;
  await arrive(mailOf('a', 12));
  expect(standing()).toBe(10);
  expect(threads().find((t) => t.kind === 'mail')?.messages).toMatchObject([{ mark: 'leftOut', leftOut: 2 }]);
  await arrive(mailOf('b', 60));
  expect(standing()).toBe(10);
  for (const name of ['c', 'd', 'e']) await arrive(mailOf(name, 10));
  expect(standing()).toBe(30);
  expect(
    threads()
      .flatMap((t) => t.messages)
      .filter((m) => m.why === 'tooManyToday' && m.pending),
  ).toHaveLength(10);
  now += 86_400_000;
  await arrive(mailOf('f', 1));
  expect(standing()).toBe(31);
});

test('what answers an invitation marked private is as private, on whatever page of the messages it comes', async () => {
  await arrive(event('REQUEST', { UID: 'p', CLASS: 'PRIVATE', SUMMARY: 'Salary' }), { id: 'salary' });
  const [item] = items('p');
  const reply = [
    'From: marta@quill-audit.example',
    `To: ${INES}`,
    'Subject: Re: Salary',
    'Message-ID: <re@x.example>',
    'In-Reply-To: <salary@x.example>',
    '',
    'It is 4,000.',
  ];
  for (let i = 0; i < 60; i++)
    await arrive(event('REQUEST', { UID: `fill-${i}`, ORGANIZER: `mailto:m${i}@quill-audit.example` }), {
      from: `m${i}@quill-audit.example`,
    });
  now += 1000;
  await takeMail(org.db, now, Buffer.from(reply.join('\r\n')), [], HOST);
  expect(JSON.stringify(threads())).toContain('4,000');
  expect(JSON.stringify(threads('tomas'))).not.toContain('4,000');
  org.db.run('UPDATE item SET removed_at = ? WHERE id = ?', now, item?.id ?? 0);
  expect(JSON.stringify(threads('tomas'))).not.toContain('4,000');
});

test('of a meeting called private nobody but the copy’s owner makes more than that', async () => {
  const { calendar } = { calendar: org.calendar('bruno') };
  org.give('bruno', 'tomas', { ...PRESETS.delegate, private: true });
  const uid = called({
    visibility: 'private',
    people: [{ address: 'bruno@cloudmoor.example', name: null, role: 'must', group: null }],
  });
  const copy = itemsByUid(org.db, mainCalendarOf(org.db, org.person('bruno').id)?.id ?? 0, uid)[0];
  expect([calendar !== '', copy?.visibility]).toEqual([true, 'private']);
  const open = (by: string) =>
    changeMeeting(org.ctx(by, now), copy?.key ?? '', {
      version: itemByKey(org.db, copy?.key ?? '')?.version ?? 0,
      scope: 'all',
      fields: { visibility: 'follow' },
    });
  expect(open('tomas')).toMatchObject({ code: 'calledPrivate', facts: { name: 'Bruno' } });
  // Nor by taking back what they themselves had done to it before.
  org.db.run(`UPDATE item SET visibility = 'follow' WHERE id = ?`, copy?.id ?? 0);
  const narrowed = changeMeeting(org.ctx('tomas', now), copy?.key ?? '', {
    version: copy?.version ?? 0,
    scope: 'all',
    fields: { visibility: 'private' },
  });
  expect(undoSeveral(org.ctx('tomas', now), narrowed.ok ? narrowed.value.undo : '')).toMatchObject({
    code: 'calledPrivate',
  });
  expect(open('bruno')).toMatchObject({ ok: true });
});

const outgoing = () =>
  org.db
    .all<{ message_id: string; mail: string }>('SELECT message_id, mail FROM outgoing_mail ORDER BY id')
    .map(({ message_id, mail }) => {
      const { inReplyTo, refs, automatic, meeting } = JSON.parse(mail);
      return { id: message_id, method: meeting.message.method, inReplyTo, refs, automatic: automatic ?? false };
    });

test('an answer stands beneath the invitation it answers (RFC 5322 3.6.4)', async () => {
  await arrive(event('REQUEST'), { id: 'asked' });
  const id = items()[0]?.key ?? '';
  expect(
    answerItem(org.ctx('ines', now), id, { answer: 'accepted', comment: '', seen: 'needs-action', scope: 'all' }).ok,
  ).toBe(true);
  releaseDue(org.db, now + 11_000);
  expect(outgoing()).toMatchObject([{ method: 'REPLY', inReplyTo: '<asked@x.example>', refs: ['<asked@x.example>'] }]);
});

test('mail about one occurrence stands beneath the series’ own; an answer nobody pressed anything for says so (RFC 3834)', async () => {
  const body = newItem.parse({
    title: 'Weekly',
    when: at('2027-03-03', 10),
    repeat: { rule: 'FREQ=WEEKLY;COUNT=3' },
    people: [{ address: MARTA, name: null, role: 'must', group: null }],
  });
  const made = createMeeting(org.ctx('ines', now), org.calendar('ines'), body);
  if (!made.ok) throw new Error(made.code);
  releaseDue(org.db, now + 11_000);
  const key = (made.value.item?.id ?? '').split('~')[0] ?? '';
  const { uid = '', version = 0 } = itemByKey(org.db, key) ?? {};
  const second = `${key}~${(Date.UTC(2027, 2, 10, 10) / 1000).toString(36)}`;
  const changed = changeMeeting(org.ctx('ines', now + 12_000), second, {
    version,
    scope: 'one',
    fields: { place: 'Ridge' },
  });
  expect(changed.ok).toBe(true);
  releaseDue(org.db, now + 30_000);
  const [series, occurrence] = outgoing();
  expect(occurrence).toMatchObject({ method: 'REQUEST', inReplyTo: series?.id, refs: [series?.id], automatic: false });
  now += 60_000;
  await arrive(
    event('REFRESH', {
      UID: uid,
      DTSTART: '',
      DTEND: '',
      SUMMARY: '',
      ORGANIZER: `mailto:${INES}`,
      ATTENDEE: `mailto:${MARTA}`,
    }),
  );
  expect(outgoing().at(-1)).toMatchObject({ method: 'REQUEST', automatic: true });
  expect(outgoing().length).toBeGreaterThan(2);
});
