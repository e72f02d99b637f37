import type { ReadMessage } from '@/core/formats/index.ts';
import {
  answerMeeting,
  type Copy,
  type Meeting,
  type Message,
  myAnswer,
  nudge,
  receiveAsAttendee,
  receiveAsOrganiser,
  sameAddress,
  stateOf,
} from '@/core/meetings/index.ts';
import { now as clock } from '../../clock.ts';
import type { Connection } from '../../db/index.ts';
import { log } from '../../log.ts';
import { type Calendar, mainCalendarOf } from '../../repositories/calendars.ts';
import {
  type Arriving,
  type Delivery,
  deliveryById,
  endDelivery,
  freshDelivery,
  insertDelivery,
  nextDelivery,
  putOffDelivery,
} from '../../repositories/deliveries.ts';
import {
  type AttendeeMeeting,
  insertMeeting,
  meetingByUid,
  meetingsByUid,
  type OrganiserMeeting,
  type StoredMeeting,
  updateMeeting,
} from '../../repositories/meetings.ts';
import { type Person, personByAddress, personById } from '../../repositories/people.ts';
import { hasThreads } from '../../workers/thread.ts';
import type { Acting } from '../deciding/index.ts';
import { judge } from './arrive.ts';
import { declinedWhileAway } from './decline-while-away.ts';
import { calledBy, invitedByFile, ofOccurrence } from './find-meeting.ts';
import { insideBy } from './invited.ts';
import { mailOut } from './mail-out.ts';
import { originOf } from './plan.ts';
import { projectForAttendee, projectForOrganiser } from './project.ts';
import { roomIsFree } from './rooms.ts';
import { KINDS, saveArrived, saveSent } from './save-messages.ts';
import { classified } from './shape.ts';
import { tellReaders } from './tell.ts';

/**
 * Says something of a meeting, within the transaction that decided it, so that all of it is said or none: to those inside it is on its way from
 * then on, each of them written in a transaction of their own once this one is done; to those outside it goes as mail, `automatic` where
 * nobody pressed anything for it (RFC 3834).
 */
export function dispatch(
  ctx: Acting,
  from: Person,
  calendar: Calendar,
  meeting: StoredMeeting,
  messages: readonly Message[],
  automatic = false,
): void {
  for (const plain of messages) {
    const message = classified(ctx, meeting, plain);
    for (const address of message.to) {
      const inside = insideBy(ctx.db, address);
      if (inside)
        insertDelivery(ctx.db, {
          personId: inside.id,
          actorId: ctx.viewer.id,
          at: ctx.now,
          what: { from: 'inside', message: { ...message, to: [address] } },
        });
      else mailOut(ctx, from, calendar, meeting, message, address, automatic);
    }
    saveSent(ctx, from, meeting, message);
  }
  onItsWay(ctx.db);
  tellReaders(ctx.db, calendar);
}

/** Deliveries made within the request that caused them; more are made after it, one after the other. */
const FEW = 5;
const AGAIN_MS = 60_000;
const MOST_TRIES = 5;

/**
 * Makes one delivery: what it says reaches its person's calendar and messages in one transaction, once, whoever else comes to it meanwhile.
 * Answers whether it was made here.
 */
export function deliver(db: Connection, id: number): boolean {
  return db.write(() => {
    const delivery = deliveryById(db, id);
    const me = delivery && personById(db, delivery.personId);
    const actor = delivery && personById(db, delivery.actorId);
    if (!delivery || !endDelivery(db, id)) return false;
    if (!me || !actor || me.leftAt !== null) return true;
    const ctx = { db, now: delivery.at, viewer: actor };
    const { what } = delivery;
    if (what.from === 'inside') receive(ctx, what.message, me, null);
    else arrive(ctx, what, me);
    return true;
  });
}

/** Takes in a scheduling message that came by mail, as far as it may do what it says; the rest is kept as a question. */
function arrive(ctx: Acting, { message, mail }: Extract<Delivery['what'], { from: 'outside' }>, me: Person): void {
  const verdict = judge(ctx.db, ctx.now, message, me, mail.checked);
  if (verdict.does === 'what it says') {
    receive(ctx, verdict.message, me, mail);
    return;
  }
  const { why, about, pending } = verdict;
  saveArrived(ctx, me, about, verdict.message, mail, 'question', { why, ...(pending ? { pending } : {}) });
  const home = mainCalendarOf(ctx.db, me.id);
  if (home) tellReaders(ctx.db, home);
}

/** Whether a delivery takes long to make: a series is written for all the years the index holds. */
const isLong = ({ what: { message } }: Delivery): boolean =>
  'time' in message && (message.time.rule !== null || message.time.added.length > 0);

/** Whether more is on its way than a request should wait for; where there are no threads nothing is left for later. */
const mayWait = (delivery: Delivery, made: number): boolean => hasThreads() && (made >= FEW || isLong(delivery));

/** Makes what is on its way, as far as it is short; the rest is for `deliverInTurn`. Within a transaction it waits until that is written. */
function onItsWay(db: Connection): void {
  db.afterWriting(() => {
    for (let made = 0; ; made++) {
      const next = freshDelivery(db);
      if (!next || mayWait(next, made)) return;
      guarded(db, next, () => deliver(db, next.id));
    }
  });
}

/** Puts a scheduling message that came from outside on its way to somebody inside. */
export function putOnItsWay(db: Connection, at: number, me: Person, message: ReadMessage, mail: Arriving): void {
  insertDelivery(db, { personId: me.id, actorId: me.id, at, what: { from: 'outside', message, mail } });
  onItsWay(db);
}

/**
 * Makes everything that is due, in the order it was said, letting others have their turn between two; what takes long is made by `beside`.
 * Answers how many deliveries were made.
 */
export async function deliverInTurn(
  db: Connection,
  now: number,
  inWorker: (delivery: Delivery) => Promise<unknown>,
  others: () => Promise<void>,
): Promise<number> {
  let made = 0;
  for (let next = nextDelivery(db, now, 0); next; next = nextDelivery(db, now, next.id)) {
    const delivery = next;
    if (isLong(delivery)) await inWorker(delivery).catch((error: unknown) => failed(db, delivery, error));
    else guarded(db, delivery, () => deliver(db, delivery.id));
    made++;
    await others();
  }
  return made;
}

function guarded(db: Connection, delivery: Delivery, work: () => void): void {
  try {
    work();
  } catch (error) {
    failed(db, delivery, error);
  }
}

/** What can't be delivered is tried again, and in the end stays where it is, to be looked at. */
function failed(db: Connection, { id, at, tries }: Delivery, error: unknown): void {
  log().error({ delivery: id, error: error instanceof Error ? error.stack : String(error) }, 'could not be delivered');
  db.write(() => putOffDelivery(db, id, tries + 1 < MOST_TRIES ? Math.max(at, clock()) + AGAIN_MS : null));
}

const TO_ORGANISER: ReadonlySet<Message['method']> = new Set(['REPLY', 'COUNTER', 'REFRESH']);

/** Takes in, for somebody inside, what was said to them: from inside with `null`, else as the mail it came by. */
export function receive(ctx: Acting, message: Message, me: Person, mail: Arriving | null): void {
  if (TO_ORGANISER.has(message.method)) receiveCalled(ctx, message, me, mail);
  else receiveForAttendee(ctx, message, me, mail);
}

function receiveForAttendee(ctx: Acting, message: Message, me: Person, mail: Arriving | null): void {
  const { db, now } = ctx;
  const calendar = mainCalendarOf(db, me.id);
  if (!calendar) return;
  const own = calledBy(db, me, message);
  if (own) {
    // Somebody says something of a meeting that is called here.
    receiveCalled(ctx, message, me, mail);
    return;
  }
  const standing =
    meetingByUid(db, calendar.id, message.uid, message.recurrence) ?? invitedByFile(db, calendar, me, message);
  const known = standing?.part === 'attendee' ? standing : null;
  const before = known?.state ?? null;
  const state = knownAnswer(receiveAsAttendee(before, message, me.address), before, message, mail);
  if (!state) {
    if (mail) saveArrived(ctx, me, null, message, mail, 'question', { why: 'notTheirs' });
    return;
  }
  const claim = before !== null && state.claims.length > before.claims.length;
  if (before && JSON.stringify(before) === JSON.stringify(state)) {
    if (mail) saveArrived(ctx, me, known, message, mail, 'question', { why: 'again' });
    return;
  }
  const held = {
    calendarId: calendar.id,
    itemId: known?.itemId ?? null,
    uid: message.uid,
    recurrence: message.recurrence,
  };
  let invitation = (
    known ? { ...known, state } : insertMeeting(db, { ...held, part: 'attendee', state }, now)
  ) as AttendeeMeeting;
  if (known) updateMeeting(db, invitation, now);
  const isNew = before === null || before.said.method === 'CANCEL';
  if (!claim && message.method === 'CANCEL' && message.recurrence === null)
    cancelOccurrences(ctx, calendar, me, message);
  if (!claim) {
    const name = personByAddress(db, message.organiser)?.name ?? (mail ? mail.fromName : null);
    invitation = projectForAttendee(ctx, calendar, me, invitation, name, before);
  }
  const change = message.method === 'REQUEST' && !isNew && !isReminder(before, state);
  const kind = claim ? 'question' : change ? 'change' : KINDS[message.method];
  const noRoom = !claim && invitation.itemId === null && invitation.state.on !== null && message.method === 'REQUEST';
  const why = claim ? { why: 'otherOrganiser' } : noRoom ? { why: 'noRoom' } : {};
  saveArrived(ctx, me, invitation, message, mail, kind, why);
  tellReaders(db, calendar);
  if (claim || stateOf(invitation.state) !== 'invited' || myAnswer(invitation.state) !== 'needs-action') return;
  const whose = { calendar, me, invitation };
  const declined = isNew && !me.resource ? declinedWhileAway(ctx, me, invitation, mail) : null;
  if (declined) answerBySelf(ctx, whose, 'declined', declined.comment);
  if (me.resource) answerBySelf(ctx, whose, roomIsFree(ctx, calendar, me, invitation) ? 'accepted' : 'declined', null);
}

/** Whether somebody is asked once more to what they haven't answered: nothing of it is otherwise than it was. */
function isReminder(before: Copy | null, now: Copy): boolean {
  if (!before?.on || !now.on || myAnswer(now) !== 'needs-action') return false;
  // The organiser's latest word is still the one before: the message that came is an older one, and asks for nothing.
  if (before.on.revision.stamp === now.on.revision.stamp) return false;
  const contentOf = ({ time, matter, invited }: NonNullable<Copy['on']>) =>
    JSON.stringify([time, matter, invited.map((one) => [one.address, one.role])]);
  return contentOf(before.on) === contentOf(now.on);
}

/** A series that is called off as a whole takes with it those of its occurrences that were changed by themselves. */
function cancelOccurrences(ctx: Acting, calendar: Calendar, me: Person, message: Message): void {
  for (const held of meetingsByUid(ctx.db, calendar.id, message.uid)) {
    if (held.part !== 'attendee' || held.recurrence === null) continue;
    const state = receiveAsAttendee(held.state, { ...message, recurrence: held.recurrence }, me.address);
    if (!state) continue;
    const invitation = { ...held, state };
    updateMeeting(ctx.db, invitation, ctx.now);
    projectForAttendee(ctx, calendar, me, invitation, null);
  }
}

/**
 * When a meeting goes on as another one (it was moved, or its series split), people inside keep the answer they gave to the first: its
 * message carries it, and nobody but they can have given it. A message from outside never says what was answered here.
 */
function knownAnswer(copy: Copy | null, before: Copy | null, message: Message, mail: Arriving | null): Copy | null {
  if (!copy || before || mail || message.method !== 'REQUEST' || copy.mine) return copy;
  const answer = message.invited.find((one) => sameAddress(one.address, copy.me))?.answer;
  if (!answer || answer === 'needs-action') return copy;
  const { sequence, stamp } = message;
  return { ...copy, mine: { answer, comment: null, sentBy: null, sequence, stamp } };
}

function receiveCalled(ctx: Acting, message: Message, me: Person, mail: Arriving | null): void {
  const { db, now } = ctx;
  const found = calledBy(db, me, message);
  if (!found?.called.state) {
    if (mail) saveArrived(ctx, me, null, message, mail, 'question', { why: 'unknownMeeting' });
    return;
  }
  const { calendar } = found;
  const called = ofOccurrence(ctx, found.called, message);
  // A recurrence-id that matches no occurrence: unknown meeting.
  if (called.recurrence !== message.recurrence) {
    if (mail) saveArrived(ctx, me, found.called, message, mail, 'question', { why: 'unknownMeeting' });
    return;
  }
  const before = called.state as Meeting;
  const origin = originOf(me, me, now, before.stamp);
  const { meeting, messages } = receiveAsOrganiser(before, message, origin);
  const question = meeting.questions.length > before.questions.length ? meeting.questions.at(-1)?.why : undefined;
  const sent = meeting.invited.filter((one) => !before.invited.some((was) => sameAddress(was.address, one.address)));
  const next: OrganiserMeeting = {
    ...called,
    state: { ...meeting, questions: meeting.questions.slice(-MOST_QUESTIONS) },
    wanted: called.wanted && [...called.wanted, ...sent],
  };
  const same = JSON.stringify(before) === JSON.stringify(meeting);
  updateMeeting(db, next, now);
  projectForOrganiser(ctx, calendar, me, next);
  const old = same && message.method !== 'REFRESH' ? ('again' as const) : undefined;
  const kind = question ? 'question' : KINDS[message.method];
  // Whom somebody would send instead hears of it when a person says so.
  const pending = question === 'sentInstead' ? { pending: message } : {};
  saveArrived(ctx, me, next, message, mail, kind, question || old ? { why: question ?? old ?? '', ...pending } : {});
  tellReaders(db, calendar);
  // Whom somebody sends instead hears of it from them; those inside have it at once all the same.
  const inside = sent.map((one) => one.address).filter((address) => insideBy(db, address) !== null);
  const also = inside.length > 0 ? nudge(meeting, origin, inside).messages : [];
  if (messages.length + also.length > 0)
    dispatch({ ...ctx, viewer: me }, me, calendar, next, [...messages, ...also], message.method === 'REFRESH');
}

/** Questions that are kept beside a meeting. */
const MOST_QUESTIONS = 50;

/** Answers at once, for a room or a thing by what else is in its calendar, for somebody who is away by their notice. */
function answerBySelf(
  ctx: Acting,
  {
    calendar,
    me,
    invitation,
  }: { readonly calendar: Calendar; readonly me: Person; readonly invitation: AttendeeMeeting },
  answer: 'accepted' | 'declined',
  comment: string | null,
): void {
  const origin = originOf(me, me, ctx.now, invitation.state.mine?.stamp ?? 0);
  const { copy, messages } = answerMeeting(invitation.state, answer, comment, origin);
  const next = { ...invitation, state: copy };
  updateMeeting(ctx.db, next, ctx.now);
  projectForAttendee({ ...ctx, viewer: me }, calendar, me, next, null);
  dispatch({ ...ctx, viewer: me }, me, calendar, next, messages);
}
