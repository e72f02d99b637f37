import type { ReadMessage } from '@/core/formats/index.ts';
import {
  answerMeeting,
  type Copy,
  copyOfHappening,
  happeningOf,
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
import { type Calendar, calendarById, calendarsOf, mainCalendarOf } from '../../repositories/calendars.ts';
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
import { itemById, itemsByUid } from '../../repositories/items.ts';
import {
  type Asked,
  type Called,
  insertMeeting,
  meetingByUid,
  meetingOfItem,
  meetingsByUid,
  type StoredMeeting,
  updateMeeting,
} from '../../repositories/meetings.ts';
import { type Person, personByAddress, personById } from '../../repositories/people.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { hasThreads } from '../../workers/thread.ts';
import { type Acting, Directory, happeningAt } from '../deciding/index.ts';
import { apart } from './apart.ts';
import { judge } from './arrive.ts';
import { declinedWhileAway } from './decline-while-away.ts';
import { insideBy } from './invited.ts';
import { KINDS, keepArrived, keepSent } from './keep.ts';
import { mailOut } from './mail-out.ts';
import { calledOf, handOf, happeningFor } from './plan.ts';
import { copyFromItem, projectAsked, projectCalled } from './project.ts';
import { roomIsFree } from './rooms.ts';
import { classified, invitedFrom, timeOf, timeOfHappening } from './shape.ts';
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
    keepSent(ctx, from, meeting, message);
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
  keepArrived(ctx, me, about, verdict.message, mail, 'question', { why, ...(pending ? { pending } : {}) });
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
  beside: (delivery: Delivery) => Promise<unknown>,
  others: () => Promise<void>,
): Promise<number> {
  let made = 0;
  for (let next = nextDelivery(db, now, 0); next; next = nextDelivery(db, now, next.id)) {
    const delivery = next;
    if (isLong(delivery)) await beside(delivery).catch((error: unknown) => failed(db, delivery, error));
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
  else receiveAsked(ctx, message, me, mail);
}

function receiveAsked(ctx: Acting, message: Message, me: Person, mail: Arriving | null): void {
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
    meetingByUid(db, calendar.id, message.uid, message.recurrence) ?? askedByFile(db, calendar, me, message);
  const known = standing?.part === 'attendee' ? standing : null;
  const before = known?.state ?? null;
  const state = knownAnswer(receiveAsAttendee(before, message, me.address), before, message, mail);
  if (!state) {
    if (mail) keepArrived(ctx, me, null, message, mail, 'question', { why: 'notTheirs' });
    return;
  }
  const claim = before !== null && state.claims.length > before.claims.length;
  if (before && JSON.stringify(before) === JSON.stringify(state)) {
    if (mail) keepArrived(ctx, me, known, message, mail, 'question', { why: 'again' });
    return;
  }
  const held = {
    calendarId: calendar.id,
    itemId: known?.itemId ?? null,
    uid: message.uid,
    recurrence: message.recurrence,
  };
  let asked = (known ? { ...known, state } : insertMeeting(db, { ...held, part: 'attendee', state }, now)) as Asked;
  if (known) updateMeeting(db, asked, now);
  const isNew = before === null || before.said.method === 'CANCEL';
  if (!claim && message.method === 'CANCEL' && message.recurrence === null)
    cancelHappenings(ctx, calendar, me, message);
  if (!claim) {
    const name = personByAddress(db, message.organiser)?.name ?? (mail ? mail.fromName : null);
    asked = projectAsked(ctx, calendar, me, asked, name, before);
  }
  const change = message.method === 'REQUEST' && !isNew && !isReminder(before, state);
  const kind = claim ? 'question' : change ? 'change' : KINDS[message.method];
  const noRoom = !claim && asked.itemId === null && asked.state.on !== null && message.method === 'REQUEST';
  const why = claim ? { why: 'otherOrganiser' } : noRoom ? { why: 'noRoom' } : {};
  keepArrived(ctx, me, asked, message, mail, kind, why);
  tellReaders(db, calendar);
  if (claim || stateOf(asked.state) !== 'invited' || myAnswer(asked.state) !== 'needs-action') return;
  const whose = { calendar, me, asked };
  const declined = isNew && !me.resource ? declinedWhileAway(ctx, me, asked, mail) : null;
  if (declined) answerBySelf(ctx, whose, 'declined', declined.comment);
  if (me.resource) answerBySelf(ctx, whose, roomIsFree(ctx, calendar, me, asked) ? 'accepted' : 'declined', null);
}

/** Whether somebody is asked once more to what they haven't answered: nothing of it is otherwise than it was. */
function isReminder(before: Copy | null, now: Copy): boolean {
  if (!before?.on || !now.on || myAnswer(now) !== 'needs-action') return false;
  // The organiser's latest word is still the one before: the message that came is an older one, and asks for nothing.
  if (before.on.revision.stamp === now.on.revision.stamp) return false;
  const asks = ({ time, matter, invited }: NonNullable<Copy['on']>) =>
    JSON.stringify([time, matter, invited.map((one) => [one.address, one.role])]);
  return asks(before.on) === asks(now.on);
}

/** A series that is called off as a whole takes with it those of its happenings that were changed by themselves. */
function cancelHappenings(ctx: Acting, calendar: Calendar, me: Person, message: Message): void {
  for (const held of meetingsByUid(ctx.db, calendar.id, message.uid)) {
    if (held.part !== 'attendee' || held.recurrence === null) continue;
    const state = receiveAsAttendee(held.state, { ...message, recurrence: held.recurrence }, me.address);
    if (!state) continue;
    const asked = { ...held, state };
    updateMeeting(ctx.db, asked, ctx.now);
    projectAsked(ctx, calendar, me, asked, null);
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

/** The meeting of a person's own that a message speaks of, in whichever of their calendars it is. */
function calledBy(db: Connection, me: Person, message: Message): { calendar: Calendar; called: Called } | null {
  for (const calendar of calendarsOf(db, me.id)) {
    const found = meetingByUid(db, calendar.id, message.uid, message.recurrence);
    if (found?.part === 'organiser') return { calendar, called: found };
    const whole = message.recurrence === null ? null : meetingByUid(db, calendar.id, message.uid, null);
    if (whole?.part === 'organiser') return { calendar, called: whole };
    // A meeting that came in with a file and that nobody has changed here yet.
    const item = itemsByUid(db, calendar.id, message.uid).find(
      (i) => i.recurrence === message.recurrence || i.recurrence === null,
    );
    const called = item && meetingOfItem(db, item.id) === null ? calledOf(db, me, item, 0) : null;
    if (called) return { calendar, called };
  }
  return null;
}

/** What a file brought in of a meeting that is heard of now: held from now on as what it is. */
export function askedByFile(
  db: Connection,
  calendar: Calendar,
  me: Person,
  message: Pick<Message, 'uid' | 'recurrence'>,
): Asked | null {
  const all = itemsByUid(db, calendar.id, message.uid);
  const item = all.find((i) => i.recurrence === message.recurrence);
  if (!item) return null;
  const known = meetingOfItem(db, item.id);
  if (known) return known.part === 'attendee' ? known : null;
  if (!item.ownerInvited || !item.organiser) return null;
  const state = copyFromItem(item, me, timeOf(new Directory(db), item), invitedFrom(item.attendees));
  const held = { calendarId: calendar.id, itemId: item.id, uid: item.uid, recurrence: item.recurrence };
  return insertMeeting(db, { ...held, part: 'attendee', state }, 0) as Asked;
}

function receiveCalled(ctx: Acting, message: Message, me: Person, mail: Arriving | null): void {
  const { db, now } = ctx;
  const found = calledBy(db, me, message);
  if (!found?.called.state) {
    if (mail) keepArrived(ctx, me, null, message, mail, 'question', { why: 'unknownMeeting' });
    return;
  }
  const { calendar } = found;
  const called = ofHappening(ctx, found.called, message);
  // A recurrence-id that matches no occurrence: unknown meeting.
  if (called.recurrence !== message.recurrence) {
    if (mail) keepArrived(ctx, me, found.called, message, mail, 'question', { why: 'unknownMeeting' });
    return;
  }
  const before = called.state as Meeting;
  const hand = handOf(me, me, now, before.stamp);
  const { meeting, messages } = receiveAsOrganiser(before, message, hand);
  const asked = meeting.questions.length > before.questions.length ? meeting.questions.at(-1)?.why : undefined;
  const sent = meeting.invited.filter((one) => !before.invited.some((was) => sameAddress(was.address, one.address)));
  const next: Called = {
    ...called,
    state: { ...meeting, questions: meeting.questions.slice(-MOST_QUESTIONS) },
    wanted: called.wanted && [...called.wanted, ...sent],
  };
  const same = JSON.stringify(before) === JSON.stringify(meeting);
  updateMeeting(db, next, now);
  projectCalled(ctx, calendar, me, next);
  const old = same && message.method !== 'REFRESH' ? ('again' as const) : undefined;
  const kind = asked ? 'question' : KINDS[message.method];
  // Whom somebody would send instead hears of it when a person says so.
  const pending = asked === 'sentInstead' ? { pending: message } : {};
  keepArrived(ctx, me, next, message, mail, kind, asked || old ? { why: asked ?? old ?? '', ...pending } : {});
  tellReaders(db, calendar);
  // Whom somebody sends instead hears of it from them; those inside have it at once all the same.
  const inside = sent.map((one) => one.address).filter((address) => insideBy(db, address) !== null);
  const also = inside.length > 0 ? nudge(meeting, hand, inside).messages : [];
  if (messages.length + also.length > 0)
    dispatch({ ...ctx, viewer: me }, me, calendar, next, [...messages, ...also], message.method === 'REFRESH');
}

/** Questions that are kept beside a meeting. */
const MOST_QUESTIONS = 50;

/** A message about one happening of a series makes that happening a meeting of its own. */
function ofHappening(ctx: Acting, called: Called, message: Message): Called {
  if (message.recurrence === null || called.recurrence !== null || !called.state) return called;
  const series = called.itemId === null ? null : itemById(ctx.db, called.itemId);
  if (!series) return called;
  const calendar = calendarById(ctx.db, called.calendarId);
  const happening = { ...happeningFor(series, message.recurrence), recurrence: message.recurrence };
  // No occurrence begins then: the series stays what the message is about.
  if (!calendar || !happeningAt(ctx.db, series, happening.start)) return called;
  const time = timeOfHappening(new Directory(ctx.db), series, happening);
  const state = happeningOf(called.state, message.recurrence, time);
  const itemId = apart(ctx, calendar, series, happening).id;
  const held = { calendarId: called.calendarId, itemId, uid: called.uid, recurrence: message.recurrence };
  return insertMeeting(ctx.db, { ...held, part: 'organiser', state, wanted: null }, ctx.now) as Called;
}

/** Makes one occurrence of a series a meeting of its own for somebody who was asked to the series and answers that one alone. */
export function askedToHappening(ctx: Acting, asked: Asked, item: Pick<StoredItem, 'id'>, recurrence: string): Asked {
  const series = itemById(ctx.db, asked.itemId ?? -1);
  if (!series) return asked;
  const time = timeOfHappening(new Directory(ctx.db), series, happeningFor(series, recurrence));
  const state = copyOfHappening(asked.state, recurrence, time);
  const held = { calendarId: asked.calendarId, itemId: item.id, uid: asked.uid, recurrence };
  return insertMeeting(ctx.db, { ...held, part: 'attendee', state }, ctx.now) as Asked;
}

/** Answers at once, for a room or a thing by what else is in its calendar, for somebody who is away by their notice. */
function answerBySelf(
  ctx: Acting,
  { calendar, me, asked }: { readonly calendar: Calendar; readonly me: Person; readonly asked: Asked },
  answer: 'accepted' | 'declined',
  comment: string | null,
): void {
  const hand = handOf(me, me, ctx.now, asked.state.mine?.stamp ?? 0);
  const { copy, messages } = answerMeeting(asked.state, answer, comment, hand);
  const next = { ...asked, state: copy };
  updateMeeting(ctx.db, next, ctx.now);
  projectAsked({ ...ctx, viewer: me }, calendar, me, next, null);
  dispatch({ ...ctx, viewer: me }, me, calendar, next, messages);
}
