import { createHash } from 'node:crypto';
import { writingIsFree } from '../../db/gate.ts';
import type { Connection } from '../../db/index.ts';
import { receiveFile } from '../../files/store.ts';
import { newKey } from '../../ids.ts';
import { readAuthenticationResults } from '../../mail/authentication-results.ts';
import { readInvitationsInWorker, readMailInWorker } from '../../mail/read-in-worker.ts';
import type { Invitations } from '../../mail/read-invitations.ts';
import type { ReadMail } from '../../mail/read-mail.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import type { Arriving } from '../../repositories/deliveries.ts';
import { rememberInbound } from '../../repositories/inbound.ts';
import { folderIdsOf } from '../../repositories/lists.ts';
import { meetingById } from '../../repositories/meetings.ts';
import type { MessageFacts, MessageFile } from '../../repositories/message-row.ts';
import { answeredMessage, fileBytesSince } from '../../repositories/messages.ts';
import { mailBounced } from '../../repositories/outgoing-mail.ts';
import type { Person } from '../../repositories/people.ts';
import { saveZone } from '../../repositories/zone-definitions.ts';
import { addMessage, fileOnArrival, tellPeople } from '../deciding/index.ts';
import { homeOf, insideBy, putOnItsWay, tellReaders } from '../meetings/index.ts';
import { answerWhileAway } from './answer-while-away.ts';

const MOST_RECIPIENTS = 100;
/** What is kept of a mail that is for nobody here, in bytes. */
const MOST_UNSEEN = 1_000_000;
/** Bytes of files that are kept of the mail that comes to one person in a day. */
const MOST_FILE_BYTES_A_DAY = 500_000_000;
const DAY = 86_400_000;
/** Words of a mail that go along with each of its scheduling messages. */
const MOST_WORDS = 4000;

/** Whom a mail is for inside, by its envelope where the mail service gives that, else by To and Cc; and the clocks its floating times may be on. */
function recipientsOf(
  db: Connection,
  mail: Pick<ReadMail, 'to'>,
  envelope: readonly string[],
): { readonly people: readonly Person[]; readonly clocks: readonly string[] } {
  const addresses = envelope.length > 0 ? envelope : mail.to.map((box) => box.address);
  const people = [...new Set(addresses.map((a) => a.trim().toLowerCase()))]
    .slice(0, MOST_RECIPIENTS)
    .flatMap((address) => insideBy(db, address) ?? []);
  return { people, clocks: [...new Set(people.map((person) => clockOf(db, person)))] };
}

const clockOf = (db: Connection, person: Person): string => mainCalendarOf(db, person.id)?.zone ?? person.zone;

/**
 * Reads a mail from outside on a worker thread, and takes it in. What couldn't be read within bounds is kept as its words alone. `raw` is the
 * message as it came (RFC 5322), `envelope` whom the mail service says it is for.
 */
export async function takeMail(
  db: Connection,
  now: number,
  raw: Uint8Array,
  envelope: readonly string[],
  mailHost: string | null,
): Promise<void> {
  const mail = await readMailInWorker(raw);
  const { clocks, people } = recipientsOf(db, mail, envelope);
  const files = await saveFiles(db, now, people, mail.files);
  const invitations = await readInvitationsInWorker(mail.calendars, mail.from?.address ?? '', clocks);
  await writingIsFree();
  const read = invitations ? mail : { ...mail, mark: 'unreadable' as const };
  receiveMail(db, now, { ...read, files }, invitations ?? {}, raw, envelope, mailHost);
}

/**
 * Puts what is attached to a mail in the data folder: before a row names it, since a file without a row is swept. What would be more in a day
 * than one person gets of files is named and not kept.
 */
async function saveFiles(
  db: Connection,
  now: number,
  people: readonly Person[],
  files: ReadMail['files'],
): Promise<MessageFile[]> {
  let room = Math.max(0, ...people.map(({ id }) => MOST_FILE_BYTES_A_DAY - fileBytesSince(db, id, now - DAY)));
  const saved: MessageFile[] = [];
  for (const { name, bytes, type, content } of files) {
    const fits = content !== null && content.length > 0 && content.length <= room;
    const arrived = fits ? await receiveFile(db.folder, new Blob([new Uint8Array(content)]).stream()) : null;
    await arrived?.save();
    room -= arrived?.bytes ?? 0;
    saved.push({ name, bytes, type, ...(arrived ? { digest: arrived.digest } : {}) });
  }
  return saved;
}

/** A mail as it was read, with its files in their places. */
type SavedMail = Omit<ReadMail, 'files'> & { readonly files: readonly MessageFile[] };

/**
 * Takes in a mail from outside, for everybody inside it was for: of each the same comes once. Its scheduling messages (`invitations`, by clock)
 * are on their way into those people's calendars from then on; all else, what can't be read, and what was left out of it, is a message. For
 * nobody here, it is kept unseen. One transaction.
 */
function receiveMail(
  db: Connection,
  now: number,
  mail: SavedMail,
  invitations: Readonly<Record<string, Invitations>>,
  raw: Uint8Array,
  envelope: readonly string[],
  mailHost: string | null,
): void {
  const { people } = recipientsOf(db, mail, envelope);
  const from = mail.from?.address ?? '';
  const print = (whom: string) =>
    createHash('sha256')
      .update(JSON.stringify([mail.messageId, from, mail.digest, whom]))
      .digest('hex');
  db.write(() => {
    for (const id of mailBounced(db, mail.undelivered)) {
      const meeting = meetingById(db, id);
      const home = meeting && homeOf(db, meeting);
      if (home) tellReaders(db, home.calendar);
    }
    if (people.length === 0) {
      rememberInbound(db, print(''), now, raw.subarray(0, MOST_UNSEEN));
      return;
    }
    const checked = isVouchedFor(mail, mailHost);
    for (const person of people) {
      if (!rememberInbound(db, print(person.address), now, null)) continue;
      const read = invitations[clockOf(db, person)] ?? Object.values(invitations)[0];
      takeIn(db, now, mail, read ?? NOTHING, person, checked);
      // Who answers an invitation expects no answer.
      if (!(read ?? NOTHING).messages.some(({ method }) => method === 'REPLY')) answerWhileAway(db, now, mail, person);
    }
  });
}

const NOTHING: Invitations = { messages: [], zones: [], leftOut: 0 };

function takeIn(db: Connection, now: number, mail: SavedMail, read: Invitations, me: Person, checked: boolean): void {
  const leftOut = read.leftOut + mail.partsLeftOut;
  if (!mail.from || read.messages.length === 0 || leftOut > 0) savePlain(db, now, mail, me, checked, leftOut);
  if (!mail.from) return;
  const arriving: Arriving = {
    checked,
    messageId: mail.messageId,
    inReplyTo: mail.inReplyTo,
    refs: mail.refs,
    fromName: mail.from.name,
    body: mail.text.slice(0, MOST_WORDS),
    files: mail.files,
  };
  for (const zone of read.zones) saveZone(db, zone);
  for (const message of read.messages) putOnItsWay(db, now, me, { ...message, to: [me.address] }, arriving);
}

/**
 * Whether the mail host that is ours to trust says that the sender is who they say (RFC 8601): its latest word, on the domain of the one
 * address the mail is from. DMARC has to name that domain; a DKIM signature has to be that domain's own.
 */
function isVouchedFor(mail: SavedMail, mailHost: string | null): boolean {
  if (mailHost === null || !mail.from || mail.severalFrom) return false;
  const host = mailHost.toLowerCase();
  const field = mail.authentication.map(readAuthenticationResults).find((one) => one?.host === host);
  if (!field?.results) return false;
  const domain = mail.from.address.toLowerCase().split('@').at(-1) ?? '';
  const isOn = (properties: ReadonlyMap<string, readonly string[]>, name: string): boolean => {
    const values = properties.get(name) ?? [];
    return values.length > 0 && values.every((value) => value.toLowerCase() === domain);
  };
  const dmarc = field.results.filter(({ method }) => method === 'dmarc');
  if (dmarc.some(({ result }) => result === 'fail')) return false;
  if (dmarc.some(({ result, properties }) => result === 'pass' && isOn(properties, 'header.from'))) return true;
  return field.results.some(
    ({ method, result, properties }) => method === 'dkim' && result === 'pass' && isOn(properties, 'header.d'),
  );
}

/** Keeps a mail as the words it is. */
function savePlain(db: Connection, now: number, mail: SavedMail, me: Person, checked: boolean, leftOut: number): void {
  const folders = folderIdsOf(db, me.id);
  const answered = [mail.inReplyTo ?? '', ...[...mail.refs].reverse()].filter(Boolean);
  const before = answeredMessage(db, folders, answered);
  const unreadable = mail.calendars.length > 0 ? 'unreadable' : null;
  const mark = mail.mark ?? (leftOut > 0 ? 'leftOut' : unreadable);
  const facts: MessageFacts = {
    checked,
    ...(mark ? { mark } : {}),
    ...(leftOut > 0 ? { leftOut } : {}),
    // What answers something is about what that is about, and as private.
    ...(before?.private ? { private: true as const } : {}),
    ...(mail.files.length > 0 ? { files: mail.files } : {}),
  };
  const arriving = {
    at: now,
    thread: before?.thread ?? `mail ${newKey()}`,
    kind: 'mail' as const,
    meetingId: before?.meetingId ?? null,
    fromAddress: mail.from?.address ?? '',
    fromName: mail.from?.name ?? null,
    byAddress: mail.sender && mail.sender.address !== mail.from?.address ? mail.sender.address : null,
    byName: mail.sender && mail.sender.address !== mail.from?.address ? mail.sender.name : null,
    recipients: mail.to.slice(0, 50),
    subject: mail.subject,
    body: mail.text,
    facts,
    messageId: mail.messageId,
    inReplyTo: mail.inReplyTo,
    refs: mail.refs,
    actorId: null,
  };
  addMessage(db, { ...arriving, collectionId: fileOnArrival(db, me.id, arriving) });
  tellPeople(db, [me.id]);
}
