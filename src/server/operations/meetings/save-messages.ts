import type { Copy, Meeting, Message } from '@/core/meetings/index.ts';
import type { Arriving } from '../../repositories/deliveries.ts';
import { folderOf } from '../../repositories/lists.ts';
import type { StoredMeeting } from '../../repositories/meetings.ts';
import type { MessageFacts, MessageKind } from '../../repositories/message-row.ts';
import { insertMessage } from '../../repositories/messages.ts';
import { type Person, personByAddress } from '../../repositories/people.ts';
import { type Acting, fileOnArrival } from '../deciding/index.ts';

/** What kind of message each method arrives as. */
export const KINDS: Record<Message['method'], MessageKind> = {
  REQUEST: 'invitation',
  PUBLISH: 'forInformation',
  ADD: 'invitation',
  CANCEL: 'calledOff',
  REPLY: 'answer',
  COUNTER: 'counter',
  DECLINECOUNTER: 'counterDeclined',
  REFRESH: 'stateAsked',
};

function factsOf(message: Message, copy: Copy | Meeting | null): MessageFacts {
  const on = copy && ('on' in copy ? copy.on : copy);
  const time = 'time' in message ? message.time : on?.time;
  const matter = 'matter' in message ? message.matter : on?.matter;
  return {
    ...(matter ? { title: matter.title, place: matter.place } : {}),
    ...(time ? { time: { start: time.start, end: time.end, allDay: time.allDay, zone: time.zone } } : {}),
    ...('answer' in message ? { answer: message.answer } : {}),
    ...('attendee' in message ? { attendee: message.attendee } : {}),
    ...('delegatedTo' in message && message.delegatedTo && message.authorised !== true
      ? { sentInstead: message.delegatedTo.address }
      : {}),
    ...('classification' in message && message.classification ? { private: true } : {}),
  };
}

/** Keeps the copy of what was said that stays with whoever said it. */
export function saveSent(ctx: Acting, from: Person, meeting: StoredMeeting, message: Message): void {
  const { db, now, viewer } = ctx;
  const names = message.to.map((address) => ({ address, name: personByAddress(db, address)?.name ?? null }));
  insertMessage(db, {
    collectionId: folderOf(db, from.id, 'sent').id,
    at: now,
    thread: threadOf(meeting.uid),
    kind: KINDS[message.method],
    meetingId: meeting.id,
    fromAddress: from.address,
    fromName: from.name,
    ...by(viewer, from),
    recipients: names,
    subject: '',
    body: ('comment' in message ? message.comment : null) ?? '',
    facts: factsOf(message, meeting.state),
    messageId: null,
    inReplyTo: null,
    refs: [],
    actorId: viewer.id,
  });
}

const by = (actor: Person, principal: Person) =>
  actor.id === principal.id ? { byAddress: null, byName: null } : { byAddress: actor.address, byName: actor.name };

/** What belongs to one meeting is one thread. */
export const threadOf = (uid: string): string => `meeting ${uid}`;

/** Words of a mail that are kept beside the meeting it is about. */
const MOST_WORDS = 4000;

/** Keeps what arrived for somebody among their messages. */
export function saveArrived(
  ctx: Acting,
  me: Person,
  meeting: StoredMeeting | null,
  message: Message,
  mail: Arriving | null,
  kind: MessageKind,
  more: Partial<MessageFacts>,
): void {
  const { db, now } = ctx;
  const sender = personByAddress(db, message.sender);
  const sentBy = message.sentBy === null ? null : personByAddress(db, message.sentBy);
  const inside = mail === null;
  const arriving = {
    at: now,
    thread: threadOf(message.uid),
    kind,
    meetingId: meeting?.id ?? null,
    fromAddress: message.sender,
    fromName: sender?.name ?? mail?.fromName ?? null,
    byAddress: message.sentBy,
    byName: sentBy?.name ?? null,
    recipients: [{ address: me.address, name: me.name }],
    subject: '',
    // What was said beside the meeting itself: its comment, else the words of the mail it came by.
    body: ('comment' in message ? message.comment : null) ?? mail?.body.slice(0, MOST_WORDS) ?? '',
    facts: {
      ...factsOf(message, meeting?.state ?? null),
      ...more,
      ...(inside ? {} : { checked: mail.checked }),
      ...(mail?.files?.length ? { files: mail.files } : {}),
    },
    messageId: mail?.messageId ?? null,
    inReplyTo: mail?.inReplyTo ?? null,
    refs: mail?.refs ?? [],
    actorId: null,
  };
  insertMessage(db, { ...arriving, collectionId: fileOnArrival(db, me.id, arriving) });
}

/** Keeps for whose meeting it is that somebody outside chose its time on a page where it was offered: `words` is what they read there. */
export function saveChosen(
  ctx: Acting,
  owner: Person,
  meeting: StoredMeeting,
  visitor: { readonly address: string; readonly name: string },
  words: string,
): void {
  const standing = meeting.part === 'organiser' ? meeting.state : null;
  insertMessage(ctx.db, {
    collectionId: folderOf(ctx.db, owner.id, 'arrived').id,
    at: ctx.now,
    thread: threadOf(meeting.uid),
    kind: 'chosen',
    meetingId: meeting.id,
    fromAddress: visitor.address,
    fromName: visitor.name,
    byAddress: null,
    byName: null,
    recipients: [{ address: owner.address, name: owner.name }],
    subject: '',
    body: words,
    facts: standing
      ? {
          title: standing.matter.title,
          place: standing.matter.place,
          time: {
            start: standing.time.start,
            end: standing.time.end,
            allDay: standing.time.allDay,
            zone: standing.time.zone,
          },
        }
      : {},
    messageId: null,
    inReplyTo: null,
    refs: [],
    actorId: null,
  });
}
