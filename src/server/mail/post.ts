import { createTransport, type Transporter } from 'nodemailer';
import { letterbox } from '../../../standins/letterbox.ts';
import { now } from '../clock.ts';
import { settings } from '../settings.ts';

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

/** The way letters go out: the mail service that is set, in the demo the letterbox; `null` where there is neither. */
export function post(): Post | null {
  if (holder.paramoPost === undefined) {
    const { smtp, demo, data } = settings();
    const transport = smtp ? createTransport(smtp) : demo ? createTransport(letterbox(data, now)) : null;
    holder.paramoPost = transport && postBy(transport);
  }
  return holder.paramoPost;
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
