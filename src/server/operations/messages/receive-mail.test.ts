import { afterEach, beforeEach, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import { readMail } from '../../mail/read-mail.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { itemsByUid } from '../../repositories/items.ts';
import { readMeeting } from '../meetings/index.ts';
import { type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { listMessages, takeMessage } from './list-messages.ts';
import { receiveMail } from './receive-mail.ts';

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
  more: { from?: string; vouched?: boolean; type?: string; to?: string; id?: string; envelope?: string[] } = {},
): Promise<void> {
  const { from = MARTA, vouched = true, type = 'text/calendar', to = INES } = more;
  const raw = [
    ...(vouched ? [`Authentication-Results: ${HOST}; dmarc=pass header.from=${from.split('@')[1]}`] : []),
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
  receiveMail(org.db, now, await readMail(bytes), bytes, more.envelope ?? [], HOST);
}

const items = (uid = 'audit-1') => itemsByUid(org.db, mainCalendarOf(org.db, org.person('ines').id)?.id ?? 0, uid);
const threads = (by = 'ines') => {
  const listed = listMessages(org.ctx(by, now), 'ines', null);
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
  const mine = listMessages(org.ctx('ines', now), 'ines', null);
  expect(mine).toMatchObject({ ok: true, value: { forNobody: 1 } });
});

test('a series, one of its happenings on another clock, and the end of all of it, in whatever order they come', async () => {
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

test('a delegate who isn’t let into what is private reads no message of a private happening, nor of a private question', async () => {
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
