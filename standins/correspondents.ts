import { appendFileSync, existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ICAL from 'ical.js';
import type { ParsedMail } from 'mailparser';
import { createTransport } from 'nodemailer';
import { SMTPServer } from 'smtp-server';

/** Parses a mail. The parser is loaded with the first one, so that it doesn't slow the start. */
const parsed = async (raw: Buffer): Promise<ParsedMail> => (await import('mailparser')).simpleParser(raw);

/** One mail between the house and somebody outside, as they read it. */
export interface Traffic {
  readonly at: string;
  /** Whether it came to them, or they wrote it. */
  readonly way: 'received' | 'wrote';
  readonly who: string;
  readonly from: string;
  readonly sender: string | null;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly method: string | null;
}

/** What a correspondent does once a mail has reached them: a mail of theirs, so many milliseconds later. */
export interface Doing {
  readonly after: number;
  readonly to: string;
  readonly raw: Buffer;
}

/** How the people outside are: some always the same, everybody else by what their address comes to. */
const WAYS = ['accepts', 'declines', 'proposes', 'late', 'twice', 'silent'] as const;
type Way = (typeof WAYS)[number] | 'bounces';
const KNOWN: Readonly<Record<string, Way>> = {
  'marta@quill-audit.example': 'accepts',
  'p.oduya@water-ministry.example': 'proposes',
  'h.brandt@tidewater.example': 'declines',
  's.ferrand@uplands-bank.example': 'late',
  'office@old-mill.example': 'bounces',
  'd.okoro@tidewater.example': 'twice',
  'board@river-board.example': 'silent',
};

const SECOND = 1000;
/** How often it is looked whether somebody’s time to answer has come. */
const TURN_MS = 100;
const HOST = 'post.cloudmoor.example';

function wayOf(address: string): Way {
  const known = KNOWN[address.toLowerCase()];
  if (known) return known;
  let seed = 20_270_301;
  for (const c of address.toLowerCase())
    seed = (Math.imul(seed ^ c.charCodeAt(0), 2_654_435_761) >>> 0) ^ (seed >>> 13);
  return WAYS[(seed >>> 0) % WAYS.length] as Way;
}

const composer = createTransport({ streamTransport: true, buffer: true, newline: 'windows' });

/** A mail of somebody outside, vouched for by the mail host that stands in. `calendar` is a scheduling message it carries. */
export async function mailFrom(mail: {
  readonly from: { readonly name: string; readonly address: string };
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly calendar?: { readonly method: string; readonly text: string };
  readonly inReplyTo?: string;
  readonly id: string;
  readonly vouched?: boolean;
}): Promise<Buffer> {
  const domain = mail.from.address.split('@')[1] ?? '';
  const { message } = await composer.sendMail({
    from: mail.from,
    to: mail.to,
    subject: mail.subject,
    text: mail.text,
    messageId: `<${mail.id}@${domain}>`,
    ...(mail.inReplyTo ? { inReplyTo: mail.inReplyTo, references: [mail.inReplyTo] } : {}),
    ...(mail.vouched === false
      ? {}
      : { headers: { 'Authentication-Results': `${HOST}; dmarc=pass header.from=${domain}` } }),
    ...(mail.calendar
      ? {
          alternatives: [
            {
              contentType: `text/calendar; method=${mail.calendar.method}; charset=utf-8`,
              content: mail.calendar.text,
            },
          ],
        }
      : {}),
  });
  return message as unknown as Buffer;
}

/** A scheduling message: one event with the lines given, and the zones its times are on. */
export const calendarText = (method: string, lines: readonly string[]): string =>
  [
    'BEGIN:VCALENDAR',
    'PRODID:-//Correspondents//EN',
    'VERSION:2.0',
    `METHOD:${method}`,
    'BEGIN:VEVENT',
    ...lines,
    'END:VEVENT',
    'END:VCALENDAR',
    '',
  ].join('\r\n');

const utc = (ms: number): string => `${new Date(ms).toISOString().replace(/[-:]/g, '').slice(0, 15)}Z`;

/** What a mail that reached somebody outside makes them do, the same each time for the same mail. `at` is when it reached them. */
export async function doingsFor(raw: Buffer, to: string, at: number): Promise<Doing[]> {
  const mail = await parsed(raw);
  const from = mail.from?.value[0];
  const text = calendarIn(mail);
  const way = wayOf(to);
  if (!from?.address) return [];
  if (way === 'bounces') return [{ after: 2 * SECOND, to: from.address, raw: bounceOf(mail, to) }];
  const name = nameOf(mail, to);
  const me = { name, address: to };
  if (!text) {
    if (way === 'silent') return [];
    const id = `w${hash(`${mail.messageId} ${to}`)}`;
    const reply = await mailFrom({
      from: me,
      to: from.address,
      subject: `Re: ${mail.subject ?? ''}`,
      text: 'Thank you. I will look at it and write again by the end of the week.',
      ...(mail.messageId ? { inReplyTo: mail.messageId } : {}),
      id,
    });
    return [{ after: 12 * SECOND, to: from.address, raw: reply }];
  }
  const calendar = new ICAL.Component(ICAL.parse(text));
  const method = String(calendar.getFirstPropertyValue('method') ?? '');
  const event = calendar.getFirstSubcomponent('vevent');
  if (method !== 'REQUEST' || !event || way === 'silent') return [];
  const answer = (what: Answering): Promise<Doing> => replyTo(mail, event, me, from.address as string, what, at);
  switch (way) {
    case 'accepts':
      return [await answer({ after: 3 * SECOND, says: 'ACCEPTED', words: '' })];
    case 'declines':
      return [
        await answer({
          after: 4 * SECOND,
          says: 'DECLINED',
          words: 'I am at the weir that day, and not back before the evening.',
        }),
      ];
    case 'proposes':
      return [
        await answer({ after: 6 * SECOND, says: 'COUNTER', words: 'Could we meet a day later, at the same hour?' }),
      ];
    case 'late':
      return [await answer({ after: 90 * SECOND, says: 'ACCEPTED', words: 'Forgive the late word. I will be there.' })];
    case 'twice':
      return [
        await answer({ after: 3 * SECOND, says: 'TENTATIVE', words: 'I have to ask first.' }),
        await answer({ after: 20 * SECOND, says: 'ACCEPTED', words: 'It is settled, I come.' }),
      ];
    default:
      return way satisfies never;
  }
}

interface Answering {
  readonly after: number;
  readonly says: 'ACCEPTED' | 'DECLINED' | 'TENTATIVE' | 'COUNTER';
  readonly words: string;
}

async function replyTo(
  mail: ParsedMail,
  event: ICAL.Component,
  me: { name: string; address: string },
  to: string,
  { after, says, words }: Answering,
  at: number,
): Promise<Doing> {
  const line = (name: string) => event.getFirstProperty(name)?.toICALString();
  const counter = says === 'COUNTER';
  const method = counter ? 'COUNTER' : 'REPLY';
  const start = event.getFirstPropertyValue('dtstart') as ICAL.Time;
  const end = (event.getFirstPropertyValue('dtend') as ICAL.Time | null) ?? start;
  const later = (time: ICAL.Time) => utc(time.toJSDate().getTime() + 86_400_000);
  const lines = [
    line('uid'),
    line('recurrence-id'),
    line('organizer'),
    `SEQUENCE:${event.getFirstPropertyValue('sequence') ?? 0}`,
    `DTSTAMP:${utc(at + after)}`,
    `ATTENDEE;CN=${me.name.replace(/[;:,"]/g, ' ')};PARTSTAT=${counter ? 'TENTATIVE' : says}:mailto:${me.address}`,
    ...(counter ? [`DTSTART:${later(start)}`, `DTEND:${later(end)}`, line('summary') ?? 'SUMMARY:'] : []),
    ...(words ? [`COMMENT:${words.replace(/([\\;,])/g, '\\$1')}`] : []),
  ].filter((l): l is string => l !== undefined);
  const title = String(event.getFirstPropertyValue('summary') ?? '');
  const raw = await mailFrom({
    from: me,
    to,
    subject: `${counter ? 'Another time' : says.toLowerCase()}: ${title}`,
    text: words || 'See the calendar attached.',
    calendar: { method, text: calendarText(method, lines) },
    ...(mail.messageId ? { inReplyTo: mail.messageId } : {}),
    id: `r${hash(`${mail.messageId} ${me.address} ${says}`)}`,
  });
  return { after, to, raw };
}

const calendarIn = (mail: ParsedMail): string | null =>
  mail.attachments.find((a) => a.contentType === 'text/calendar')?.content.toString('utf8') ?? null;

function nameOf(mail: ParsedMail, address: string): string {
  const all = [mail.to ?? []].flat().flatMap((o) => o.value);
  return all.find((one) => one.address?.toLowerCase() === address)?.name || (address.split('@')[0] ?? address);
}

function bounceOf(mail: ParsedMail, to: string): Buffer {
  const b = `=_${hash(mail.messageId ?? '')}`;
  const domain = to.split('@')[1] ?? '';
  return Buffer.from(
    [
      `From: Mail service <postmaster@${domain}>`,
      `To: ${mail.from?.value[0]?.address ?? ''}`,
      'Subject: Could not be delivered',
      `Message-ID: <b${hash(`${mail.messageId} ${to}`)}@${domain}>`,
      `Authentication-Results: ${HOST}; dmarc=pass header.from=${domain}`,
      'MIME-Version: 1.0',
      `Content-Type: multipart/report; report-type=delivery-status; boundary="${b}"`,
      '',
      `--${b}`,
      'Content-Type: text/plain; charset=utf-8',
      '',
      `There is no mailbox ${to} here any more.`,
      '',
      `--${b}`,
      'Content-Type: message/delivery-status',
      '',
      `Reporting-MTA: dns; mail.${domain}`,
      '',
      `Final-Recipient: rfc822; ${to}`,
      'Action: failed',
      'Status: 5.1.1',
      '',
      `--${b}`,
      'Content-Type: text/rfc822-headers',
      '',
      `Message-ID: ${mail.messageId ?? ''}`,
      '',
      `--${b}--`,
      '',
    ].join('\r\n'),
  );
}

function hash(text: string): string {
  let h = 0x811c9dc5;
  for (const c of text) h = Math.imul(h ^ (c.codePointAt(0) ?? 0), 0x01000193) >>> 0;
  return h.toString(36);
}

const fileIn = (folder: string): string => join(folder, 'correspondents.jsonl');
const MOST_SHOWN = 300;

/** What has gone between the house and the people outside, the newest first. */
export function trafficIn(folder: string): Traffic[] {
  const file = fileIn(folder);
  if (!existsSync(file)) return [];
  return readFileSync(file, 'utf8')
    .split('\n')
    .filter(Boolean)
    .slice(-MOST_SHOWN)
    .map((line) => JSON.parse(line) as Traffic)
    .reverse();
}

/** Notes down a mail as whoever is outside reads or wrote it. */
export async function noteTraffic(
  folder: string,
  at: number,
  way: Traffic['way'],
  who: string,
  raw: Buffer,
): Promise<void> {
  const mail = await parsed(raw);
  const one = (o: ParsedMail['from']) => o?.text ?? '';
  const sender = mail.headers.get('sender') as { text?: string } | undefined;
  const text = calendarIn(mail);
  const line: Traffic = {
    at: new Date(at).toISOString(),
    way,
    who,
    from: one(mail.from),
    sender: sender?.text ?? null,
    to: [mail.to ?? []].flat().map(one).join(', '),
    subject: mail.subject ?? '',
    text: (mail.text ?? '').slice(0, 5000),
    method: text ? (/^METHOD:(\w+)/m.exec(text)?.[1] ?? null) : null,
  };
  appendFileSync(fileIn(folder), `${JSON.stringify(line)}\n`);
}

/**
 * The stand-in for a mail service and for everybody outside it: an SMTP server on loopback whose correspondents answer by themselves, each
 * in their own way. What they write comes back by `deliver`, as mail from outside does. Answers the address to send by. A mail that comes
 * twice, by its Message-ID, is one.
 */
export async function startCorrespondents(options: {
  readonly folder: string;
  readonly now: () => number;
  readonly deliver: (raw: Buffer, to: string) => Promise<void>;
}): Promise<{ readonly url: string; readonly close: () => Promise<void> }> {
  const { folder, now, deliver } = options;
  const seen = new Set<string>();
  let waiting: { due: number; who: string; doing: Doing }[] = [];
  const take = async (raw: Buffer, recipients: readonly string[]) => {
    const id = /^message-id:\s*(\S+)/im.exec(raw.subarray(0, 20_000).toString('latin1'))?.[1];
    for (const to of recipients) {
      const key = `${id} ${to}`;
      if (seen.has(key)) continue;
      seen.add(key);
      await noteTraffic(folder, now(), 'received', to, raw);
      for (const doing of await doingsFor(raw, to, now())) waiting.push({ due: now() + doing.after, who: to, doing });
    }
  };
  // By the demo's clock, which can be put forward.
  const turn = setInterval(() => {
    const due = waiting.filter((one) => one.due <= now());
    waiting = waiting.filter((one) => !due.includes(one));
    for (const { who, doing } of due)
      void noteTraffic(folder, now(), 'wrote', who, doing.raw)
        .then(() => deliver(doing.raw, doing.to))
        .catch(() => {});
  }, TURN_MS);
  turn.unref();
  const server = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: 30_000_000,
    onData(stream, session, done) {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        const to = session.envelope.rcptTo.map((r) => r.address.toLowerCase());
        take(Buffer.concat(parts), to).then(
          () => done(),
          (error: Error) => done(error),
        );
      });
    },
  });
  await new Promise<void>((up) => server.listen(0, '127.0.0.1', up));
  server.server.unref();
  const address = server.server.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  return {
    url: `smtp://127.0.0.1:${port}`,
    close: () => {
      clearInterval(turn);
      return new Promise((closed) => server.close(() => closed()));
    },
  };
}
