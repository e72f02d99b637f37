import { createHash } from 'node:crypto';
import { type ReadMessage, readMessage, recurrenceIn } from '@/core/formats/index.ts';
import { type Message, sameAddress } from '@/core/meetings/index.ts';
import type { Connection } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import type { ReadMail } from '../../mail/read-mail.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { rememberInbound } from '../../repositories/inbound.ts';
import { itemsByUid } from '../../repositories/items.ts';
import { meetingById, meetingByUid } from '../../repositories/meetings.ts';
import { findFolder, folderOf, insertMessage, type MessageFacts, threadAnswered } from '../../repositories/messages.ts';
import { mailBounced } from '../../repositories/outgoing-mail.ts';
import type { Person } from '../../repositories/people.ts';
import { keepZone, knowZone } from '../../repositories/zone-definitions.ts';
import { Directory } from '../deciding/index.ts';
import {
  type Arriving,
  homeOf,
  insideBy,
  keepArrived,
  receive,
  tellOwner,
  tellReaders,
  timeOf,
} from '../meetings/index.ts';

const nameZone = (text: string): string => `~${createHash('sha256').update(text).digest('base64url').slice(0, 27)}`;
const MOST_RECIPIENTS = 100;

/**
 * Takes in a mail from outside, for everybody inside it was for: by its envelope where the mail service gives that, else by To and Cc. Of
 * each the same comes once. Scheduling messages do what they say as far as their sender is vouched for; all else, and what can't be read,
 * is a message. For nobody here, it is kept unseen. One transaction.
 */
export function receiveMail(
  db: Connection,
  now: number,
  mail: ReadMail,
  raw: Uint8Array,
  envelope: readonly string[],
  mailHost: string | null,
): void {
  const addresses = envelope.length > 0 ? envelope : mail.to.map((box) => box.address);
  const people = [...new Set(addresses.map((a) => a.trim().toLowerCase()))]
    .slice(0, MOST_RECIPIENTS)
    .flatMap((address) => insideBy(db, address) ?? []);
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
      rememberInbound(db, print(''), now, raw);
      return;
    }
    for (const person of people)
      if (rememberInbound(db, print(person.address), now, null)) arrive(db, now, mail, person, mailHost);
  });
}

function arrive(db: Connection, now: number, mail: ReadMail, me: Person, mailHost: string | null): void {
  const checked = isVouchedFor(mail, mailHost);
  const arriving: Arriving = {
    checked,
    messageId: mail.messageId,
    inReplyTo: mail.inReplyTo,
    refs: mail.refs,
    fromName: mail.from?.name ?? null,
    body: mail.text,
    files: mail.files,
  };
  const said = mail.from ? messagesOf(db, mail, me) : [];
  if (said.length === 0) {
    keepPlain(db, now, mail, me, checked);
    return;
  }
  const ctx = { db, now, viewer: me };
  for (const { recurrenceZone, ...message } of said) {
    const inSeries = inZoneOfSeries(db, me, { ...message, recurrenceZone } as ReadMessage);
    if (isInAnothersName(db, inSeries)) {
      // Of somebody inside nobody outside can speak; of anybody else it is for a person to say.
      const pending = insideBy(db, principalOf(inSeries)) ? {} : { pending: inSeries };
      keepArrived(ctx, me, meetingOf(db, me, inSeries), inSeries, arriving, 'question', {
        why: 'notTheirs',
        ...pending,
      });
      const home = mainCalendarOf(db, me.id);
      if (home) tellReaders(db, home);
    } else if (isRefused(db, me, inSeries))
      keepArrived(ctx, me, null, inSeries, arriving, 'question', { why: 'notInvited' });
    else if (checked || isNewInvitation(db, me, inSeries)) receive(ctx, inSeries, me, arriving);
    else {
      const held = meetingOf(db, me, inSeries);
      keepArrived(ctx, me, held, inSeries, arriving, 'question', { why: 'notChecked', pending: inSeries });
      const home = mainCalendarOf(db, me.id);
      if (home) tellReaders(db, home);
    }
  }
}

/** The scheduling messages of a mail. The same in two parts is one. */
function messagesOf(db: Connection, mail: ReadMail, me: Person): ReadMessage[] {
  const zone = mainCalendarOf(db, me.id)?.zone ?? me.zone;
  const known = new Set<string>();
  return mail.calendars.flatMap((text) => {
    const read = readMessage(text, mail.from?.address ?? '', [me.address], { zone, candidates: [zone], nameZone });
    if (read.kind !== 'messages') return [];
    for (const defined of read.zones) {
      keepZone(db, defined);
      knowZone(db, defined.name);
    }
    return read.messages.filter((message) => {
      const print = JSON.stringify(message);
      if (known.has(print)) return false;
      known.add(print);
      return true;
    });
  });
}

/** A message that names a happening names it on its series' clock from here on. */
function inZoneOfSeries(db: Connection, me: Person, { recurrenceZone, ...message }: ReadMessage): Message {
  if (message.recurrence === null) return message as Message;
  const calendar = mainCalendarOf(db, me.id);
  const series = calendar && itemsByUid(db, calendar.id, message.uid).find((i) => i.recurrence === null);
  if (!series) return message as Message;
  const { start, allDay, zone } = { ...timeOf(new Directory(db), series), zone: series.zone };
  const recurrence = recurrenceIn({ start, allDay, zone }, { recurrence: message.recurrence, recurrenceZone });
  return { ...message, recurrence } as Message;
}

const meetingOf = (db: Connection, me: Person, message: Message) => {
  const calendar = mainCalendarOf(db, me.id);
  return calendar && meetingByUid(db, calendar.id, message.uid, message.recurrence);
};

/**
 * Whether a message that says it was sent for somebody can't be taken for theirs: who it is sent by is its own word (RFC 5545, 3.2.18).
 * Those inside send from inside; and whoever calls a meeting is spoken for by somebody of their own domain.
 */
function isInAnothersName(db: Connection, message: Message): boolean {
  const { sender, sentBy, organiser } = message;
  const principal = principalOf(message);
  if (sentBy === null || !sameAddress(sentBy, sender) || sameAddress(sender, principal)) return false;
  if (insideBy(db, principal)) return true;
  return sameAddress(principal, organiser) && domainOf(principal) !== domainOf(sender);
}

/** In whose name a message speaks. */
const principalOf = (message: Message): string => ('attendee' in message ? message.attendee : message.organiser);

const domainOf = (address: string): string => address.toLowerCase().split('@').at(-1) ?? '';

/** An invitation to a meeting that isn't known yet may stand, as what it is: unanswered. */
const isNewInvitation = (db: Connection, me: Person, message: Message): boolean => {
  const calendar = mainCalendarOf(db, me.id);
  // Whoever is inside asks from inside: mail that says it is from one of ours has to be vouched for.
  if (message.method !== 'REQUEST' || !calendar || insideBy(db, message.organiser)) return false;
  return meetingOf(db, me, message) === null && itemsByUid(db, calendar.id, message.uid).length === 0;
};

/** Whoever isn't among those a meeting asks has nothing in it. */
function isRefused(db: Connection, me: Person, message: Message): boolean {
  if (message.method !== 'REQUEST' && message.method !== 'ADD') return false;
  if (meetingOf(db, me, message)) return false;
  return !message.invited.some((one) => one.address.toLowerCase() === me.address.toLowerCase());
}

/**
 * Whether the mail host that is ours to trust says that the sender is who they say (RFC 8601): its latest word, on the domain of the
 * address the mail is from.
 */
function isVouchedFor(mail: ReadMail, mailHost: string | null): boolean {
  if (mailHost === null || !mail.from) return false;
  const host = mailHost.toLowerCase();
  const word = mail.authentication
    .map((line) => line.toLowerCase())
    .find((line) => line.split(';')[0]?.trim().split(/\s/)[0] === host);
  if (!word) return false;
  const domain = mail.from.address.split('@').at(-1) ?? '';
  return word
    .split(';')
    .slice(1)
    .some((part) => {
      const [method = '', ...facts] = part.trim().split(/\s+/);
      if (method === 'dmarc=pass')
        return facts.every((f) => !f.startsWith('header.from=') || f === `header.from=${domain}`);
      return method === 'dkim=pass' && facts.some((f) => f === `header.d=${domain}`);
    });
}

/** Keeps a mail as the words it is. */
function keepPlain(db: Connection, now: number, mail: ReadMail, me: Person, checked: boolean): void {
  const folders = (['Arrived', 'Sent'] as const).map((name) => findFolder(db, me.id, name) ?? -1);
  const answered = [mail.inReplyTo ?? '', ...[...mail.refs].reverse()].filter(Boolean);
  const facts: MessageFacts = {
    checked,
    ...(mail.mark ? { mark: mail.mark } : mail.calendars.length > 0 ? { mark: 'unreadable' as const } : {}),
    ...(mail.files.length > 0 ? { files: mail.files } : {}),
  };
  insertMessage(db, {
    collectionId: folderOf(db, me.id, 'Arrived'),
    at: now,
    thread: threadAnswered(db, folders, answered) ?? `mail ${newKey()}`,
    kind: 'mail',
    meetingId: null,
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
  });
  tellOwner(db, me);
}
