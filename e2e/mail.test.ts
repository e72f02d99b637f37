import { type ParsedMail, simpleParser } from 'mailparser';
import { createTransport } from 'nodemailer';
import { SMTPServer } from 'smtp-server';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { Caller, deliver as deliverTo } from './caller.ts';
import { type Running, startServer, tenSecondsPass } from './servers.ts';
import { takesAtMost } from './timed.ts';
import { until } from './until.ts';

/*
 * Mail over real SMTP in one direction and the signed door in the other, read and written by a mail library and never by our own code.
 */
const HOST = 'mx.cloudmoor.example';
const MARTA = 'marta@quill-audit.example';
let server: Running;
let post: SMTPServer;
let ines: Caller;
let tomas: Caller;
const got: { to: string; mail: ParsedMail }[] = [];

beforeAll(async () => {
  post = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    onData(stream, session, done) {
      simpleParser(stream).then(
        (mail) => {
          got.push({ to: session.envelope.rcptTo.map((r) => r.address).join(), mail });
          done();
        },
        (error: Error) => done(error),
      );
    },
  });
  await new Promise<void>((up) => post.listen(0, '127.0.0.1', up));
  const address = post.server.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  const env = { PARAMO_SMTP: `smtp://127.0.0.1:${port}`, PARAMO_MAIL_HOST: HOST };
  server = await startServer('mail', { demo: true, sample: true, env });
  ines = await Caller.stepIn(server.address, 'ines');
  tomas = await Caller.stepIn(server.address, 'tomas');
});

afterAll(async () => {
  await server.stop();
  await new Promise<void>((closed) => post.close(() => closed()));
});

/** Waits for a mail that has just been put on its way, but not for its ten seconds. */
async function mailTo(to: string, subject: RegExp): Promise<ParsedMail> {
  tenSecondsPass(server.address);
  return until(
    `a mail to ${to}: ${subject}`,
    async () => got.find((one) => one.to === to && subject.test(one.mail.subject ?? ''))?.mail,
  );
}

const deliver = (raw: string | Buffer, to: string, secret?: string) => deliverTo(server.address, raw, to, secret);

const composer = createTransport({ streamTransport: true, buffer: true, newline: 'windows' });
async function compose(mail: Parameters<typeof composer.sendMail>[0], vouched = true): Promise<Buffer> {
  const headers = vouched ? { 'Authentication-Results': `${HOST}; dmarc=pass header.from=quill-audit.example` } : {};
  const { message } = await composer.sendMail({ ...mail, headers });
  return message as unknown as Buffer;
}

const calendarOf = (mail: ParsedMail): string =>
  mail.attachments.find((a) => a.contentType === 'text/calendar')?.content.toString('utf8') ?? '';
const unfolded = (text: string): string => text.replace(/\r\n[ \t]/g, '');

async function calendarOfInes(): Promise<string> {
  const frame = await ines.json<{ principals: { handle: string; calendar: string }[] }>('/api/frame');
  return frame.principals.find((p) => p.handle === 'ines')?.calendar ?? '';
}

interface Meeting {
  people: { address: string; answer: string; comment: string | null; by: string | null }[];
}

async function callMeeting(title: string, more: object = {}): Promise<{ item: { id: string; version: number } }> {
  const made = await tomas.send('POST', `/api/calendars/${await calendarOfInes()}/items`, {
    when: { start: '2027-04-06T10:00', end: '2027-04-06T11:00', allDay: false, zone: 'Europe/Lisbon' },
    title,
    people: [{ address: MARTA, name: 'Marta Quill' }, { address: 'b.keane@cloudmoor.example' }],
    ...more,
  });
  expect(made.status).toBe(200);
  return JSON.parse(made.text);
}

test('an invitation goes out in both names, in parts that any mail program reads; the answer comes back and counts', async () => {
  const { item } = await callMeeting('Weir consent, Ünïted', {
    notes: 'Bring <b>the map</b>\nand the letters.',
    briefing: 'Not a word of the price.',
    categories: ['Heron'],
  });
  const mail = await mailTo(MARTA, /^Weir consent/);
  expect(mail.from?.value).toEqual([{ name: 'Inés Varga', address: 'i.varga@cloudmoor.example' }]);
  expect((mail.headers.get('sender') as { value: unknown[] }).value).toEqual([
    { name: 'Tomas Lindqvist', address: 't.lindqvist@cloudmoor.example' },
  ]);
  expect(mail.subject).toBe('Weir consent, Ünïted');
  expect(mail.text).toContain('Sent by Tomas Lindqvist for Inés Varga.');
  expect(mail.attachments.map((a) => a.contentType)).toEqual(['text/calendar', 'application/ics']);
  expect(mail.attachments[0]?.headers.get('content-type')).toMatchObject({
    params: { method: 'REQUEST', charset: 'utf-8' },
  });
  expect(mail.headers.get('content-type')).toMatchObject({ value: 'multipart/mixed' });
  expect(mail.messageId).toMatch(/^<[\w-]+@localhost>$/);
  const text = unfolded(calendarOf(mail));
  expect(text).toContain('METHOD:REQUEST');
  expect(text).toMatch(
    /ORGANIZER;CN="?Inés Varga"?;SENT-BY="mailto:t\.lindqvist@cloudmoor\.example":mailto:i\.varga@cloudmoor\.example/,
  );
  expect(text).toContain('SUMMARY:Weir consent\\, Ünïted');
  // Nothing of her own copy goes with it.
  expect(mail.text + text).not.toMatch(/Not a word|Heron|CLASS|X-PARAMO|CATEGORIES/);
  const uid = /^UID:(.*)$/m.exec(text)?.[1]?.trim() ?? '';

  const reply = await compose({
    from: { name: 'Marta Quill', address: MARTA },
    to: 'i.varga@cloudmoor.example',
    subject: 'Accepted',
    text: 'Gladly.',
    inReplyTo: mail.messageId ?? '',
    alternatives: [
      {
        contentType: 'text/calendar; method=REPLY; charset=utf-8',
        content: [
          'BEGIN:VCALENDAR',
          'PRODID:-//x//x//EN',
          'VERSION:2.0',
          'METHOD:REPLY',
          'BEGIN:VEVENT',
          `UID:${uid}`,
          'SEQUENCE:0',
          'DTSTAMP:20270302T100000Z',
          'ORGANIZER:mailto:i.varga@cloudmoor.example',
          `ATTENDEE;PARTSTAT=ACCEPTED:mailto:${MARTA}`,
          'COMMENT:Gladly\\, with Hugo',
          'END:VEVENT',
          'END:VCALENDAR',
          '',
        ].join('\r\n'),
      },
    ],
  });
  expect(await deliver(reply, 'i.varga@cloudmoor.example')).toEqual({ status: 202, text: '{"done":true}' });
  // The same once more is the same.
  expect((await deliver(reply, 'i.varga@cloudmoor.example')).status).toBe(202);
  // What was taken is stored; it counts as its turn comes.
  const meeting = await until('her answer', async (say) => {
    const now = await tomas.json<Meeting>(`/api/items/${item.id}/meeting`);
    return now.people[0]?.answer === 'accepted' ? now : say(JSON.stringify(now.people));
  });
  expect(meeting.people[0]).toMatchObject({ address: MARTA, comment: 'Gladly, with Hugo' });
  const { threads } = await tomas.json<{ threads: { title: string; messages: { kind: string }[] }[] }>(
    '/api/people/ines/messages',
  );
  const kinds = threads.find((t) => t.title === 'Weir consent, Ünïted')?.messages.map((m) => m.kind);
  expect(kinds?.filter((k) => k === 'answer')).toHaveLength(1);

  // Called off, it holds together with what she got before.
  const now = await tomas.json<{ version: number }>(`/api/items/${item.id}`);
  expect((await tomas.send('DELETE', `/api/items/${item.id}?version=${now.version}`)).status).toBe(200);
  const off = await mailTo(MARTA, /^Called off: Weir consent/);
  // Beneath her answer, which stands beneath what she got first.
  expect([off.references].flat()).toContain(mail.messageId);
  expect(off.inReplyTo).toBe([off.references].flat().at(-1));
  expect(unfolded(calendarOf(off))).toMatch(/METHOD:CANCEL[\s\S]*SEQUENCE:1/);
});

test('what isn’t vouched for does nothing that a person hasn’t pressed; nobody’s word counts but our own mail host’s', async () => {
  const { item } = await callMeeting('Peat survey');
  tenSecondsPass(server.address);
  const mail = await until('the mail', async () => got.find((one) => one.mail.subject === 'Peat survey')?.mail);
  const uid = /^UID:(.*)$/m.exec(unfolded(calendarOf(mail)))?.[1]?.trim() ?? '';
  const lines = (answer: string) =>
    [
      'BEGIN:VCALENDAR',
      'PRODID:-//x//x//EN',
      'VERSION:2.0',
      'METHOD:REPLY',
      'BEGIN:VEVENT',
      `UID:${uid}`,
      'DTSTAMP:20270302T100000Z',
      'ORGANIZER:mailto:i.varga@cloudmoor.example',
      `ATTENDEE;PARTSTAT=${answer}:mailto:${MARTA}`,
      'END:VEVENT',
      'END:VCALENDAR',
      '',
    ].join('\r\n');
  const raw = (headers: string) =>
    `${headers}From: Marta Quill <${MARTA}>\r\nTo: i.varga@cloudmoor.example\r\nSubject: No\r\nMessage-ID: <${Math.abs(headers.length)}@x.example>\r\nContent-Type: text/calendar; method=REPLY; charset=utf-8\r\n\r\n${lines('DECLINED')}`;
  for (const headers of [
    '',
    'Authentication-Results: elsewhere.example; dmarc=pass header.from=quill-audit.example\r\n',
    `Authentication-Results: ${HOST}; dmarc=fail header.from=quill-audit.example\r\n`,
    `Authentication-Results: ${HOST}; dkim=pass header.d=other.example\r\n`,
  ])
    expect((await deliver(raw(headers), 'i.varga@cloudmoor.example')).status).toBe(202);
  const answers = async () => (await tomas.json<Meeting>(`/api/items/${item.id}/meeting`)).people[0]?.answer;
  type Threads = { threads: { title: string; messages: { key: string; pending: boolean; why: string | null }[] }[] };
  const waits = await until('all four to wait for a person', async (say) => {
    const { threads } = await tomas.json<Threads>('/api/people/ines/messages');
    const found = threads.find((t) => t.title === 'Peat survey')?.messages.filter((m) => m.pending) ?? [];
    return found.length === 4 ? found : say(`${found.length} wait`);
  });
  expect(waits[0]?.why).toBe('notChecked');
  expect(await answers()).toBe('needs-action');
  expect((await tomas.send('POST', `/api/messages/${waits[0]?.key}`)).status).toBe(200);
  expect(await answers()).toBe('declined');
  // Somebody who doesn't speak for her can't.
  const bruno = await Caller.stepIn(server.address, 'bruno');
  expect((await bruno.send('POST', `/api/messages/${waits[1]?.key}`)).status).toBe(404);
});

test('the door answers like any that isn’t there: unsigned, signed by another, or asked otherwise', async () => {
  const nothing = await fetch(`${server.address}/api/nothing/here`, { method: 'POST', body: 'x' });
  const none = { status: nothing.status, text: await nothing.text() };
  expect(none.status).toBe(404);
  const unsigned = await fetch(`${server.address}/api/inbound`, { method: 'POST', body: 'x' });
  expect({ status: unsigned.status, text: await unsigned.text() }).toEqual(none);
  expect(await deliver('From: a@b.example\r\n\r\nx', 'i.varga@cloudmoor.example', 'another secret altogether')).toEqual(
    none,
  );
  const answer = await fetch(`${server.address}/api/inbound`);
  expect({ status: answer.status, text: await answer.text() }).toEqual(none);
});

test('a header can’t be brought in by what somebody types; HTML is words', async () => {
  const title = 'Tour Bcc: all@elsewhere.example';
  const made = await tomas.send('POST', `/api/calendars/${await calendarOfInes()}/items`, {
    when: { start: '2027-04-07T10:00', end: '2027-04-07T11:00', allDay: false, zone: 'Europe/Lisbon' },
    title: 'Tour\r\nBcc: all@elsewhere.example',
    people: [{ address: 'peat@river.example', name: 'Peat' }],
  });
  expect(made.status).toBe(400);
  const named = await tomas.send('POST', `/api/people/ines/mail`, {
    to: [{ address: 'peat@river.example', name: 'Peat\r\nBcc: all@elsewhere.example' }],
    subject: `${title}\r\nBcc: all@elsewhere.example`,
    text: '<script>alert(1)</script>\r\n.\r\nBcc: x',
  });
  expect(named.status).toBe(200);
  const mail = await mailTo('peat@river.example', /^Tour/);
  expect(mail.headers.has('bcc')).toBe(false);
  expect(mail.bcc).toBeUndefined();
  expect(mail.text).toContain('<script>alert(1)</script>');
  expect(mail.subject).toContain('Tour Bcc: all@elsewhere.example');
});

test.each([
  ['twenty levels of parts', deep(20)],
  ['a bomb of mails within mails', nested(300)],
  ['ten thousand parts', many(10_000)],
  [
    'a wrong charset',
    'From: Marta <marta@quill-audit.example>\r\nSubject: x\r\nContent-Type: text/plain; charset=no-such-set\r\n\r\n\xff\xfe\x00',
  ],
  ['nothing at all', '\r\n'],
  ['no mail', '\x00\x01\x02'.repeat(1000)],
])('%s is taken in as what can be read of it, in bounded time', async (_, raw) => {
  const started = performance.now();
  const answer = await deliver(Buffer.from(raw, 'latin1'), 'i.varga@cloudmoor.example');
  expect(answer.status).toBe(202);
  takesAtMost('a mail', performance.now() - started, 10_000);
});

test('what is larger than is taken is refused with a sentence; nobody waits for it', async () => {
  const raw = `From: a@b.example\r\nSubject: large\r\n\r\n${'x'.repeat(30_000_000)}`;
  const sent = deliver(raw, 'i.varga@cloudmoor.example').catch(() => ({ status: 413, text: '' }));
  const frame = await ines.send('GET', '/api/frame');
  expect(frame.status).toBe(200);
  expect((await sent).status).toBe(413);
});

function deep(levels: number): string {
  let body = 'Content-Type: text/plain\r\n\r\nat last';
  for (let i = levels; i > 0; i--)
    body = `Content-Type: multipart/mixed; boundary="b${i}"\r\n\r\n--b${i}\r\n${body}\r\n--b${i}--\r\n`;
  return `From: Marta <marta@quill-audit.example>\r\nSubject: deep\r\nMIME-Version: 1.0\r\n${body}`;
}

function nested(levels: number): string {
  let body = 'From: x@y.example\r\nSubject: inner\r\n\r\nx';
  for (let i = 0; i < levels; i++) body = `From: x@y.example\r\nContent-Type: message/rfc822\r\n\r\n${body}`;
  return body;
}

function many(parts: number): string {
  const part = '--b\r\nContent-Type: text/plain\r\n\r\nx\r\n';
  return `From: x@y.example\r\nSubject: many\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n${part.repeat(parts)}--b--\r\n`;
}
