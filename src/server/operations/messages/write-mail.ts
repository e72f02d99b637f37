import type { MailBody } from '@/contract/messages.ts';
import { newKey } from '../../ids.ts';
import { mailIdFor } from '../../mail/mail-id.ts';
import { folderIdsOf, folderOf } from '../../repositories/lists.ts';
import { answeredMessage, messageByKey, messagesOfThread } from '../../repositories/messages.ts';
import { countMailSince, insertMail } from '../../repositories/outgoing-mail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  addMessage,
  type Context,
  fileOnArrival,
  isRefusal,
  tellPeople,
  trailOn,
  writeMessages,
} from '../deciding/index.ts';
import { insideBy, speaksOn, tellReaders } from '../meetings/index.ts';
import { answerInsideWhileAway } from './answer-while-away.ts';
import { findDraftOf } from './drafts.ts';
import { findReader, mayReadMessage } from './readers.ts';

const DAY = 86_400_000;
/** Mail in one person's name in a day. */
const MOST_A_DAY = 1000;

/**
 * Writes a mail in a person's name: they do themselves, or whoever speaks for them, and then both names stand on it. To those inside it
 * arrives at once; to those outside it goes by mail, to each by itself.
 */
export function writeMailFor(
  ctx: Context,
  handle: string,
  body: Omit<MailBody, 'draft'> & Partial<Pick<MailBody, 'draft'>>,
): Result<{ done: true }> {
  const reader = findReader(ctx, handle);
  if (isRefusal(reader)) return reader;
  const { owner, speaks } = reader;
  if (!speaks) return refuse('mayNotSpeak', { facts: { name: owner.name } });
  const { db, now } = ctx;
  const folders = folderIdsOf(db, owner.id);
  const answered = body.answers === null ? null : messageByKey(db, body.answers);
  if (body.answers !== null && (!answered || !folders.includes(answered.collectionId))) return refuse('notFound');
  // What isn't theirs to read isn't theirs to answer.
  if (answered && !mayReadMessage(ctx, reader, answered)) return refuse('notFound');
  // A folder that lets one speak lets one answer what is in it; what stands elsewhere is answered by whoever speaks by the calendar.
  const on = answered ? reader.folders.get(answered.collectionId) : null;
  if (answered && !speaksOn(reader.decided) && !on?.decision.rights.speaks)
    return refuse('mayNotSpeak', { facts: { name: owner.name } });
  const before = answered ? messagesOfThread(db, folders, answered.thread, 200) : [];
  const isPrivate = before.some((m) => m.facts.private);
  const to = [...new Map(body.to.map((one) => [one.address, one])).values()];
  if (countMailSince(db, reader.decided.calendar.id, now - DAY) + to.length > MOST_A_DAY) return refuse('tooManyTries');
  const key = newKey();
  const messageId = mailIdFor(key);
  const chain = before.flatMap((m) => m.messageId ?? []).slice(-20);
  const inReplyTo = answered?.messageId ?? null;
  const by = ctx.viewer.id === owner.id ? null : { name: ctx.viewer.name, address: ctx.viewer.address };
  const thread = answered?.thread ?? `mail ${key}`;
  const message = {
    at: now,
    thread,
    kind: 'mail' as const,
    meetingId: answered?.meetingId ?? before.findLast((m) => m.meetingId !== null)?.meetingId ?? null,
    fromAddress: owner.address,
    fromName: owner.name,
    byAddress: by?.address ?? null,
    byName: by?.name ?? null,
    recipients: to.map(({ address, name }) => ({ address, name: insideBy(db, address)?.name ?? name })),
    subject: body.subject,
    body: body.text,
    facts: isPrivate ? { private: true as const } : {},
    messageId,
    inReplyTo,
    refs: chain,
  };
  return db.write(() => {
    const draft = body.draft == null ? null : findDraftOf(ctx, reader, body.draft);
    // What was written on elsewhere meanwhile isn't thrown away by sending this.
    if (draft && !('ok' in draft))
      writeMessages(ctx, draft.on.list, null, [
        { before: draft.draft, after: { ...draft.draft, removedAt: now, version: draft.draft.version + 1 } },
      ]);
    const sent = folderOf(db, owner.id, 'sent');
    const saved = addMessage(db, { ...message, collectionId: sent.id, actorId: ctx.viewer.id });
    trailOn(ctx, sent, saved.key, 'message.sent', null, { messages: [saved.key], to: message.recipients.length });
    for (const one of message.recipients) {
      const inside = insideBy(db, one.address);
      if (inside) {
        // Answers within the house hold together by the same marks as those from outside.
        const theirs = folderIdsOf(db, inside.id);
        const known = inReplyTo ? answeredMessage(db, theirs, [inReplyTo, ...[...chain].reverse()]) : null;
        const arriving = {
          ...message,
          thread: known?.thread ?? `mail ${newKey()}`,
          meetingId: known?.meetingId ?? null,
          facts: isPrivate || known?.private ? { private: true as const } : {},
          actorId: null,
        };
        addMessage(db, { ...arriving, collectionId: fileOnArrival(db, inside.id, arriving) });
        tellPeople(db, [inside.id]);
        answerInsideWhileAway(db, now, { subject: body.subject, messageId, isPrivate }, owner, thread, inside);
        continue;
      }
      const each = newKey();
      insertMail(db, {
        key: each,
        at: now,
        collectionId: reader.decided.calendar.id,
        meetingId: null,
        messageId: message.recipients.length === 1 ? messageId : mailIdFor(each),
        mail: {
          from: { name: owner.name, address: owner.address },
          sender: by,
          to: one,
          subject: body.subject,
          text: body.text,
          meeting: null,
          inReplyTo,
          refs: chain,
        },
      });
    }
    tellReaders(db, reader.decided.calendar);
    return ok({ done: true as const });
  });
}
