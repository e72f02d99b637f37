import { createTransport, type Transporter } from 'nodemailer';
import { now } from '../clock.ts';
import { settings } from '../settings.ts';
import { letterbox } from '../stand-ins.ts';
import type { Mail } from './mail.ts';
import { writeMail } from './write-mail.ts';

/** A letter ready to go. `key` makes its Message-ID, so that a receiver knows one that came twice. */
export interface ReadyLetter {
  readonly key: string;
  readonly to: { readonly name: string; readonly address: string };
  readonly subject: string;
  readonly text: string;
}

/** Sends a letter; throws where the mail service doesn't take it. */
export type Post = (letter: ReadyLetter) => Promise<void>;

const holder = globalThis as { paramoPost?: Post | null };

/** So long a mail service has to answer at each step: what hangs is over then, and tried again. */
const LIMIT_MS = 60_000;

/** A mail service's address with its limits of time, where it names none itself. */
function withLimits(service: string): string {
  const url = new URL(service);
  for (const limit of ['connectionTimeout', 'greetingTimeout', 'socketTimeout'])
    if (!url.searchParams.has(limit)) url.searchParams.set(limit, String(LIMIT_MS));
  return url.href;
}

/** Whether the mail service said no for good: a 5xx answer stays what it is, however often it is asked (RFC 5321, 4.2.1). */
export const isFinal = (error: unknown): boolean => {
  const code = (error as { responseCode?: unknown } | null)?.responseCode;
  return typeof code === 'number' && code >= 500 && code < 600;
};

/** The way letters go out: the mail service that is set, in the demo the letterbox; `null` where there is neither. */
export function post(): Post | null {
  if (holder.paramoPost === undefined) {
    const { smtp, demo, data } = settings();
    const transport = smtp ? createTransport(withLimits(smtp)) : demo ? createTransport(letterbox(data, now)) : null;
    holder.paramoPost = transport && postBy(transport);
  }
  return holder.paramoPost;
}

const mailHolder = globalThis as { paramoMailPost?: MailPost | null };

/** The way mail in people's names goes out: the mail service that is set, else the one at `standIn`; `null` where there is neither. */
export function mailPost(standIn: string | null): MailPost | null {
  if (mailHolder.paramoMailPost === undefined) {
    const url = settings().smtp ?? standIn;
    mailHolder.paramoMailPost = url ? mailPostBy(createTransport(withLimits(url))) : null;
  }
  return mailHolder.paramoMailPost;
}

/** Sends a mail in somebody's name; throws where the mail service doesn't take it. */
export type MailPost = (mail: Mail, messageId: string) => Promise<void>;

/** Mail in people's names over one transport: `multipart/mixed` of the words and the scheduling message, and the same as a file (RFC 6047, 2.4). */
export function mailPostBy(transport: Pick<Transporter, 'sendMail'>): MailPost {
  return async (mail, messageId) => {
    const { subject, text, calendar } = writeMail(mail);
    const box = ({ name, address }: { name: string | null; address: string }) => ({ name: name ?? '', address });
    await transport.sendMail({
      from: box(mail.from),
      ...(mail.sender ? { sender: box(mail.sender) } : {}),
      to: box(mail.to),
      // An answer made by itself has no way back, so that no two machines answer each other (RFC 3834, 3.3).
      envelope: { from: mail.automatic ? '' : mail.from.address, to: mail.to.address },
      ...(mail.automatic ? { headers: { 'Auto-Submitted': 'auto-replied' } } : {}),
      subject,
      text,
      messageId,
      ...(mail.inReplyTo ? { inReplyTo: mail.inReplyTo, references: [...mail.refs] } : {}),
      ...(calendar
        ? {
            alternatives: [
              { contentType: `text/calendar; method=${calendar.method}; charset=utf-8`, content: calendar.text },
            ],
            attachments: [{ filename: 'meeting.ics', contentType: 'application/ics', content: calendar.text }],
          }
        : {}),
    });
  };
}

/** A post over one transport. */
export function postBy(transport: Pick<Transporter, 'sendMail'>): Post {
  return async ({ key, to, subject, text }) => {
    const { mailFrom, address } = settings();
    await transport.sendMail({
      from: mailFrom,
      to,
      subject,
      text,
      messageId: `<${key}@${new URL(address).hostname}>`,
      headers: { 'Auto-Submitted': 'auto-generated' },
    });
  };
}
