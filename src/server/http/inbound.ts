import { createHmac, timingSafeEqual } from 'node:crypto';
import { now } from '../clock.ts';
import { database } from '../db/index.ts';
import { log } from '../log.ts';
import { takeMail } from '../operations/messages/receive-mail.ts';
import { refuse } from '../result.ts';
import { settings } from '../settings.ts';
import { readLimited } from './body.ts';
import { evenOut, json, refusalResponse } from './route.ts';

/** The longest mail that is taken. */
const MOST_MAIL = 25_000_000;

/** What an address answers where nothing is. */
export async function nothingThere(started = performance.now()): Promise<Response> {
  await evenOut(started);
  return refusalResponse(refuse('notFound'));
}

/**
 * Mail from outside, as the mail service hands it on: the raw message, signed. Without the secret that is set, or with another signature,
 * there is nothing at this address. Answers once the message is stored.
 */
export async function inbound(request: Request): Promise<Response> {
  const started = performance.now();
  const { inboundSecret, mailHost } = settings();
  const signature = request.headers.get('x-paramo-signature');
  if (!inboundSecret || !signature) return nothingThere(started);
  // Digested as it comes: all of it at once would hold the thread.
  const digest = createHmac('sha256', inboundSecret);
  const bytes = await readLimited(request.body, MOST_MAIL, (part) => void digest.update(part));
  if (bytes === null) return refusalResponse(refuse('fileTooLarge', { facts: { most: MOST_MAIL / 1_000_000 } }));
  if (!isSigned(digest.digest(), signature)) return nothingThere(started);
  try {
    const recipients = (request.headers.get('x-paramo-recipient') ?? '').split(',').flatMap((one) => one.trim() || []);
    await takeMail(database(), now(), bytes, recipients, mailHost);
    return json({ done: true }, 202);
  } catch (error) {
    log().error({ error: error instanceof Error ? error.stack : String(error) }, 'a mail could not be taken in');
    return refusalResponse(refuse('broken'));
  }
}

function isSigned(right: Buffer, signature: string): boolean {
  const given = Buffer.from(/^sha256=([0-9a-f]{64})$/i.exec(signature.trim())?.[1] ?? '', 'hex');
  return given.length === right.length && timingSafeEqual(given, right);
}
