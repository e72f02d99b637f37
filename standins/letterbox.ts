import { appendFileSync, existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Transport } from 'nodemailer';

/** A letter as it would have gone out. */
export interface Letter {
  readonly at: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
}

const fileIn = (folder: string): string => join(folder, 'letterbox.jsonl');

/**
 * The stand-in for a mail service: a transport that puts each letter into a file of its folder, where the sample organisation's
 * correspondents find it. Nothing leaves the machine.
 */
export function letterbox(folder: string, now: () => number): Transport {
  return {
    name: 'letterbox',
    version: '1',
    send(mail, done) {
      const { envelope, messageId } = { envelope: mail.message.getEnvelope(), messageId: mail.message.messageId() };
      const letter: Letter = {
        at: new Date(now()).toISOString(),
        to: [envelope.to].flat().join(', '),
        subject: String(mail.data.subject ?? ''),
        text: String(mail.data.text ?? ''),
      };
      try {
        appendFileSync(fileIn(folder), `${JSON.stringify(letter)}\n`);
        done(null, { envelope, messageId });
      } catch (error) {
        done(error as Error, undefined as never);
      }
    },
  };
}

/** The letters in a folder's letterbox, the newest first. */
export function lettersIn(folder: string): Letter[] {
  const file = fileIn(folder);
  if (!existsSync(file)) return [];
  return readFileSync(file, 'utf8')
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line) as Letter)
    .reverse();
}
