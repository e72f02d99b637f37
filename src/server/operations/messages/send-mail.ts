import type { Connection } from '../../db/index.ts';
import { log } from '../../log.ts';
import { isFinal, type MailPost } from '../../mail/post.ts';
import {
  claimMail,
  mailDue,
  mailFailed,
  mailSent,
  type OutgoingMail,
  settleClaimedMail,
} from '../../repositories/outgoing-mail.ts';

const MOST = 50;
const MINUTE = 60_000;
/** How long to wait after each try that failed; after the last the mail is given up and shows so at its meeting. */
const AGAIN = [MINUTE, 10 * MINUTE, 60 * MINUTE, 6 * 60 * MINUTE];

/** So many addresses are written to at once: one that hangs holds up nobody else’s mail. */
const AT_ONCE = 5;

/**
 * Sends the mail that waits: to a few addresses at once, to each in its order. Each is claimed before it goes, so that no two processes send it
 * and one that ends in between sends nothing twice: what it had claimed is settled at the next start.
 */
export async function sendMail(db: Connection, now: number, post: MailPost | null): Promise<void> {
  const byAddress = new Map<string, OutgoingMail[]>();
  for (const one of mailDue(db, now, MOST)) {
    const address = one.mail.to.address.toLowerCase();
    byAddress.set(address, [...(byAddress.get(address) ?? []), one]);
  }
  const waiting = [...byAddress.values()];
  const work = async (): Promise<void> => {
    for (let next = waiting.shift(); next; next = waiting.shift())
      for (const one of next) await sendOne(db, now, post, one);
  };
  await Promise.all(Array.from({ length: AT_ONCE }, work));
}

async function sendOne(db: Connection, now: number, post: MailPost | null, one: OutgoingMail): Promise<void> {
  const { id, key, mail, messageId, tries } = one;
  if (!db.write(() => claimMail(db, id))) return;
  try {
    if (!post) throw new Error('no mail service is set');
    await post(mail, messageId);
    db.write(() => mailSent(db, id, now));
  } catch (error) {
    log().warn({ mail: key, error: error instanceof Error ? error.name : 'unknown' }, 'a mail could not be sent');
    const wait = post && !isFinal(error) ? AGAIN[tries] : undefined;
    db.write(() => mailFailed(db, id, now, wait === undefined ? null : now + wait));
  }
}

/**
 * Settles what a process that ended had claimed, and may or may not have sent: given up and shown, for a person to send again; where the
 * service knows a mail that comes twice, sent again by itself.
 */
export function settleMail(db: Connection, knowsTwice: boolean): void {
  db.write(() => settleClaimedMail(db, knowsTwice));
}
