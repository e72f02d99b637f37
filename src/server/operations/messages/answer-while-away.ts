import type { Connection } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import { mailIdFor } from '../../mail/mail-id.ts';
import type { ReadMail } from '../../mail/read-mail.ts';
import { absenceAt, noteReply } from '../../repositories/absences.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { folderOf } from '../../repositories/lists.ts';
import { insertMail } from '../../repositories/outgoing-mail.ts';
import type { Person } from '../../repositories/people.ts';
import { addMessage, tellPeople } from '../deciding/index.ts';
import { insideBy } from '../meetings/index.ts';

/** Senders that are answered during one absence. Anybody can write any address into a mail: what they make of it has an end. */
const MOST_REPLIES = 500;

/**
 * Answers a mail from outside where its reader is away, once for each sender and absence (RFC 3834): to a person who wrote to them by
 * address, never to a list, a machine, or an answer that was itself made so; and to nobody whose address is one of ours, since mail from
 * outside can't be theirs. In the transaction that takes the mail in.
 */
export function answerWhileAway(db: Connection, now: number, mail: Omit<ReadMail, 'files'>, me: Person): void {
  const absence = absenceAt(db, me.id, now);
  const { from } = mail;
  if (!absence || absence.outside === '' || !from || mail.mark !== null) return;
  if (mail.automatic || mail.severalFrom || mail.undelivered.length > 0 || insideBy(db, from.address)) return;
  if (!mail.to.some(({ address }) => address.toLowerCase() === me.address.toLowerCase())) return;
  if (!noteReply(db, absence.id, from.address, now, MOST_REPLIES)) return;
  const key = newKey();
  insertMail(db, {
    key,
    at: now,
    collectionId: mainCalendarOf(db, me.id)?.id ?? null,
    meetingId: null,
    messageId: mailIdFor(key),
    mail: {
      from: { name: me.name, address: me.address },
      sender: null,
      to: { name: from.name, address: from.address },
      subject: `Auto: ${mail.subject}`,
      text: absence.outside,
      meeting: null,
      automatic: true,
      inReplyTo: mail.messageId,
      refs: mail.messageId ? [...mail.refs, mail.messageId].slice(-20) : [],
    },
  });
}

/** The same of what somebody inside writes: their answer stands among what arrived, in the thread they began. */
export function answerInsideWhileAway(
  db: Connection,
  now: number,
  said: { readonly subject: string; readonly messageId: string; readonly isPrivate: boolean },
  sender: Person,
  thread: string,
  me: Person,
): void {
  const absence = absenceAt(db, me.id, now);
  if (!absence || absence.inside === '' || sender.id === me.id) return;
  if (!noteReply(db, absence.id, sender.address, now, MOST_REPLIES)) return;
  addMessage(db, {
    collectionId: folderOf(db, sender.id, 'arrived').id,
    at: now,
    thread,
    kind: 'mail',
    meetingId: null,
    fromAddress: me.address,
    fromName: me.name,
    byAddress: null,
    byName: null,
    recipients: [{ address: sender.address, name: sender.name }],
    subject: `Auto: ${said.subject}`,
    body: absence.inside,
    // It repeats the subject, and is as private as what it answers.
    facts: { automatic: true, ...(said.isPrivate ? { private: true } : {}) },
    messageId: mailIdFor(newKey()),
    inReplyTo: said.messageId,
    refs: [said.messageId],
    actorId: null,
  });
  tellPeople(db, [sender.id]);
}
