import { createHash } from 'node:crypto';
import type { AddressObject, ParsedMail } from 'mailparser';

interface Mailbox {
  readonly address: string;
  readonly name: string | null;
}

/** A file of a mail; without content where that isn't kept. */
interface ReadFile {
  readonly name: string;
  readonly bytes: number;
  readonly type: string;
  readonly content: Uint8Array | null;
}

/** A mail as far as it could be read: plain data, every text and list of it bounded. */
export interface ReadMail {
  readonly messageId: string | null;
  readonly inReplyTo: string | null;
  readonly refs: readonly string[];
  readonly subject: string;
  readonly from: Mailbox | null;
  /** Whether it says that it is from more than one, so that nobody knows what was checked. */
  readonly severalFrom: boolean;
  /** Who sent it in that one's name, where the mail says so. */
  readonly sender: Mailbox | null;
  readonly to: readonly Mailbox[];
  readonly text: string;
  /** The texts of its parts that are iCalendar. */
  readonly calendars: readonly string[];
  /** How many more such parts there were than are read. */
  readonly partsLeftOut: number;
  /** What is attached. The first files have their bytes with them, as far as there is room. */
  readonly files: readonly ReadFile[];
  /** What mail services said of its sender, the latest first. */
  readonly authentication: readonly string[];
  /** Message-IDs of ours that it says couldn't be delivered. */
  readonly undelivered: readonly string[];
  /** Whether no person wrote it: an answer that was made by itself, a list, a machine (RFC 3834, 2). */
  readonly automatic: boolean;
  readonly mark: 'unreadable' | 'tooDeep' | null;
  /** What tells it from another, whatever way it came. */
  readonly digest: string;
}

/** What a mail may be made of, before it counts as one that can't be read. */
const MOST_PARTS = 100;
const MOST_BOUNDARIES = 20;
const MOST_HEADER = 100_000;
const MOST_TEXT = 100_000;
const MOST_CALENDAR = 300_000;
const MOST_CALENDARS = 5;
const MOST_FILES = 50;
const MOST_FILE_BYTES = 25_000_000;
const MOST_PEOPLE = 500;

/**
 * Reads a mail (RFC 5322, MIME). Never throws: what is nested too deeply, or can't be read, comes as what its header says, with a mark.
 * HTML comes as the words in it.
 */
export async function readMail(raw: Uint8Array): Promise<ReadMail> {
  const bytes = Buffer.from(raw.buffer, raw.byteOffset, raw.byteLength);
  const digest = digestOf(bytes);
  if (isTooDeep(bytes)) return { ...(await headOf(bytes)), digest, mark: 'tooDeep' };
  try {
    return { ...readFrom(await parse(bytes)), digest, mark: null };
  } catch {
    return readHead(raw);
  }
}

/** The same of what can't be read further than its header. */
export async function readHead(raw: Uint8Array): Promise<ReadMail> {
  const bytes = Buffer.from(raw.buffer, raw.byteOffset, raw.byteLength);
  const digest = digestOf(bytes);
  return { ...(await headOf(bytes)), digest, mark: 'unreadable' };
}

/** Parses a mail. The parser is loaded with the first one, so that it doesn't slow the start. */
const parse = async (bytes: Buffer): Promise<ParsedMail> =>
  (await import('mailparser')).simpleParser(bytes, {
    skipTextToHtml: true,
    skipImageLinks: true,
    maxHtmlLengthToParse: 1_000_000,
  });

const END_OF_HEADER = /\r?\n\r?\n/;

/** Where a header ends: beyond a limit it ends there. */
function headerLength(bytes: Buffer): number {
  const found = END_OF_HEADER.exec(bytes.subarray(0, MOST_HEADER).toString('latin1'));
  return found ? found.index : Math.min(bytes.length, MOST_HEADER);
}

/** What tells a body from another: its beginning and its length, so that a large one is digested as quickly as any. */
const MOST_DIGESTED = 4_000_000;
function digestOf(bytes: Buffer): string {
  const body = bytes.subarray(headerLength(bytes));
  return createHash('sha256').update(`${body.length} `).update(body.subarray(0, MOST_DIGESTED)).digest('hex');
}

/** Whether a mail has more parts, or parts within parts, than any that a person wrote. */
function isTooDeep(bytes: Buffer): boolean {
  return (
    countOf(bytes, /boundary\s*=/gi, MOST_BOUNDARIES) > MOST_BOUNDARIES ||
    countOf(bytes, /^content-type\s*:/gim, MOST_PARTS) > MOST_PARTS ||
    countOf(bytes, /message\/rfc822/gi, MOST_BOUNDARIES) > MOST_BOUNDARIES
  );
}

const A_LOOK = 1_000_000;

/** How often a pattern stands in a text, counted to one beyond a most; looked at piece by piece. */
function countOf(bytes: Buffer, pattern: RegExp, most: number): number {
  let count = 0;
  for (let from = 0; from < bytes.length && count <= most; from += A_LOOK) {
    for (const _ of bytes
      .subarray(from, from + A_LOOK)
      .toString('latin1')
      .matchAll(pattern))
      if (++count > most) break;
  }
  return count;
}

/** What the header of a mail says, where no more of it can be read. */
async function headOf(bytes: Buffer): Promise<Omit<ReadMail, 'digest' | 'mark'>> {
  const text = bytes.subarray(0, headerLength(bytes)).toString('latin1');
  // Without what says how its body is made, there is none to read.
  const plain = text.replace(/^(content-[a-z-]+|mime-version)\s*:.*(\r?\n[ \t].*)*\r?\n?/gim, '');
  try {
    return readFrom(await parse(Buffer.from(`${plain.trimEnd()}\r\n\r\n`, 'latin1')));
  } catch {
    return readFrom({ headers: new Map(), headerLines: [], attachments: [] } as unknown as ParsedMail);
  }
}

function readFrom(mail: ParsedMail): Omit<ReadMail, 'digest' | 'mark'> {
  const calendars: string[] = [];
  let partsLeftOut = 0;
  const files: ReadFile[] = [];
  let room = MOST_FILE_BYTES;
  let report = '';
  for (const part of mail.attachments) {
    const isCalendar = part.contentType === 'text/calendar' || part.contentType === 'application/ics';
    if (isCalendar && part.content.length > MOST_CALENDAR) partsLeftOut++;
    else if (isCalendar) {
      const text = withMethod(textOf(part.content, part.headers), part.headers);
      if (calendars.includes(text)) continue;
      if (calendars.length < MOST_CALENDARS) calendars.push(text);
      else partsLeftOut++;
    }
    if (
      part.contentType === 'message/delivery-status' ||
      part.contentType === 'message/rfc822' ||
      part.contentType === 'text/rfc822-headers'
    )
      report += `\n${part.content.subarray(0, MOST_TEXT).toString('latin1')}`;
    else if (!isCalendar && files.length < MOST_FILES) {
      const fits = part.content.length <= room;
      if (fits) room -= part.content.length;
      files.push({
        name: oneLine(part.filename ?? part.contentType, 200),
        bytes: part.content.length,
        type: oneLine(part.contentType, 100).toLowerCase(),
        content: fits ? new Uint8Array(part.content) : null,
      });
    }
  }
  const text = (mail.text ?? '').slice(0, MOST_TEXT);
  const failed = /^action:\s*failed/im.test(`${report}\n${text}`);
  return {
    messageId: mail.messageId ?? null,
    inReplyTo: mail.inReplyTo ?? null,
    refs: [mail.references ?? []].flat().slice(-20),
    subject: oneLine(mail.subject ?? '', 300),
    from: boxes(mail.from)[0] ?? null,
    severalFrom: boxes(mail.from).length > 1 || mail.headerLines.filter((h) => h.key === 'from').length > 1,
    sender: boxes(mail.headers.get('sender') as AddressObject | undefined)[0] ?? null,
    to: [...boxes(mail.to), ...boxes(mail.cc)].slice(0, MOST_PEOPLE),
    text: withoutControl(text),
    calendars,
    partsLeftOut,
    files,
    authentication: mail.headerLines
      .filter((h) => h.key === 'authentication-results')
      .map((h) =>
        h.line
          .replace(/^[^:]*:/, '')
          .replace(/\s+/g, ' ')
          .trim(),
      ),
    automatic: isAutomatic(mail),
    undelivered: failed
      ? [...`${report}\n${text}`.matchAll(/message-id:\s*(<[^>\s]+>)/gi)].map((m) => m[1] as string)
      : [],
  };
}

/** Senders that are machines, by what stands before the @ of their addresses. */
const MACHINE =
  /^(mailer-daemon|postmaster|no-?reply|do-?not-?reply|bounces?|listserv|majordomo|owner-.*|.*-(owner|request|bounces?))([+=-].*)?$/i;
const LIST_HEADERS = [
  'list-id',
  'list-post',
  'list-help',
  'list-unsubscribe',
  'list-subscribe',
  'list-owner',
  'list-archive',
];

/**
 * Whether an answer that is made by itself must not go to the sender of a mail (RFC 3834, 2; RFC 2369; RFC 2919): it says that no person wrote it, came
 * over a list, reports on another mail, or names nobody to whom it would go back.
 */
function isAutomatic(mail: ParsedMail): boolean {
  const lines = new Map<string, string>();
  for (const { key, line } of mail.headerLines)
    lines.set(key, `${lines.get(key) ?? ''} ${line.replace(/^[^:]*:/, '')}`.trim().toLowerCase());
  const submitted = lines.get('auto-submitted');
  if (submitted !== undefined && !/^no\b/.test(submitted)) return true;
  if (LIST_HEADERS.some((name) => lines.has(name) || lines.has(name.replace('list-', 'x-list-')))) return true;
  if (/\b(bulk|list|junk|auto_reply)\b/.test(lines.get('precedence') ?? '')) return true;
  if (/^<\s*>/.test(lines.get('return-path') ?? '')) return true;
  if (/^multipart\/report\b/.test(lines.get('content-type') ?? '')) return true;
  const local = (box: Mailbox | undefined): string => box?.address.split('@')[0] ?? '';
  return [mail.from, mail.headers.get('sender') as AddressObject | undefined].some((object) =>
    MACHINE.test(local(boxes(object)[0])),
  );
}

/** A calendar's text with its method: the one inside it, else the one its header says (RFC 6047, 2.4). */
function withMethod(text: string, headers: ParsedMail['headers']): string {
  const type = headers.get('content-type') as { params?: { method?: string } } | undefined;
  const method = type?.params?.method?.toUpperCase() ?? '';
  if (!/^[A-Z]+$/.test(method) || /^METHOD[:;]/im.test(text)) return text;
  return text.replace(/^BEGIN:VCALENDAR\r?\n/im, (begin) => `${begin}METHOD:${method}\r\n`);
}

/** The words of a part in the characters it says it is in; in UTF-8 where it is valid as that, whatever it says. */
function textOf(content: Buffer, headers: ParsedMail['headers']): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(content);
  } catch {
    const type = headers.get('content-type') as { params?: { charset?: string } } | undefined;
    try {
      return new TextDecoder(type?.params?.charset ?? 'latin1').decode(content);
    } catch {
      return new TextDecoder('latin1').decode(content);
    }
  }
}

function boxes(object: AddressObject | AddressObject[] | undefined): Mailbox[] {
  return [object ?? []]
    .flat()
    .flatMap((o) => o.value ?? [])
    .flatMap((one) => [one, ...(one.group ?? [])])
    .filter((one) => typeof one.address === 'string' && one.address.includes('@'))
    .map((one) => ({
      address: oneLine(one.address ?? '', 254).toLowerCase(),
      name: oneLine(one.name ?? '', 120) || null,
    }));
}

const oneLine = (text: string, most: number): string =>
  text
    .replace(/[\p{Cc}\s]+/gu, ' ')
    .trim()
    .slice(0, most);
// Line breaks and tabs stand; whatever else controls anything goes.
const withoutControl = (text: string): string => text.replace(/\r\n?/g, '\n').replace(/[^\P{Cc}\n\t]/gu, '');
