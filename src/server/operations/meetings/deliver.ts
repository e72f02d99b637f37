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
import type { Connection } from '../../db/index.ts';
import { type Calendar, calendarById, calendarsOf, mainCalendarOf } from '../../repositories/calendars.ts';
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
import { Directory, happeningAt } from '../deciding/index.ts';
import { apart } from './apart.ts';
import { insideBy } from './invited.ts';
import { type Arriving, KINDS, keepArrived, keepSent } from './keep.ts';
import { mailOut } from './mail-out.ts';
import { calledOf, handOf, happeningFor } from './plan.ts';
import { type Acting, copyFromItem, projectAsked, projectCalled } from './project.ts';
import { roomIsFree } from './rooms.ts';
import { invitedFrom, timeOf, timeOfHappening } from './shape.ts';
import { tellReaders } from './tell.ts';

/**
 * Delivers what was said of a meeting: to those inside at once, into their calendars and messages; to those outside as mail that goes
 * afterwards. Within the transaction that decided it, so that all of it is said or none.
 */
export function dispatch(
  ctx: Acting,
  from: Person,
  calendar: Calendar,
  meeting: StoredMeeting,
  messages: readonly Message[],
): void {
  for (const message of messages) {
    for (const address of message.to) {
      const inside = insideBy(ctx.db, address);
      if (inside) receive(ctx, message, inside, null);
      else mailOut(ctx, from, calendar, meeting, message, address);
    }
    keepSent(ctx, from, meeting, message);
  }
  tellReaders(ctx.db, calendar);
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
    asked = projectAsked(ctx, calendar, me, asked, name);
  }
  const change = message.method === 'REQUEST' && !isNew && !isReminder(before, state);
  const kind = claim ? 'question' : change ? 'change' : KINDS[message.method];
  const noRoom = !claim && asked.itemId === null && asked.state.on !== null && message.method === 'REQUEST';
  const why = claim ? { why: 'otherOrganiser' } : noRoom ? { why: 'noRoom' } : {};
  keepArrived(ctx, me, asked, message, mail, kind, why);
  tellReaders(db, calendar);
  if (me.resource && !claim && stateOf(asked.state) === 'invited' && myAnswer(asked.state) === 'needs-action')
    answerBySelf(ctx, calendar, me, asked, roomIsFree(ctx, calendar, me, asked));
}

/** Whether somebody is asked once more to what they haven't answered: nothing of it is otherwise than it was. */
function isReminder(before: Copy | null, now: Copy): boolean {
  if (!before?.on || !now.on || myAnswer(now) !== 'needs-action') return false;
  // What was said before that, and comes late, asks for nothing.
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
 * What somebody inside is asked to that goes on as another with the answer they gave to the first: it is theirs, since nobody but they can
 * have given it. What comes from outside never says what was answered here.
 */
function knownAnswer(copy: Copy | null, before: Copy | null, message: Message, mail: Arriving | null): Copy | null {
  if (!copy || before || mail || message.method !== 'REQUEST' || copy.mine) return copy;
  const answer = message.invited.find((one) => one.address.toLowerCase() === copy.me.toLowerCase())?.answer;
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
    // What a file brought in, and nobody touched here yet.
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
  // What names a happening that is none is about nothing that is called here.
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
  keepArrived(ctx, me, next, message, mail, kind, asked || old ? { why: asked ?? old ?? '' } : {});
  tellReaders(db, calendar);
  // Whom somebody sends instead hears of it from them; those inside have it at once all the same.
  const inside = sent.map((one) => one.address).filter((address) => insideBy(db, address) !== null);
  const also = inside.length > 0 ? nudge(meeting, hand, inside).messages : [];
  if (messages.length + also.length > 0) dispatch({ ...ctx, viewer: me }, me, calendar, next, [...messages, ...also]);
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
  // What is no happening of it is nobody's: the series answers for it.
  if (!calendar || !happeningAt(ctx.db, series, happening.start)) return called;
  const time = timeOfHappening(new Directory(ctx.db), series, happening);
  const state = happeningOf(called.state, message.recurrence, time);
  const itemId = apart(ctx, calendar, series, happening).id;
  const held = { calendarId: called.calendarId, itemId, uid: called.uid, recurrence: message.recurrence };
  return insertMeeting(ctx.db, { ...held, part: 'organiser', state, wanted: null }, ctx.now) as Called;
}

/** The same for somebody asked who answers one happening alone. */
export function askedToHappening(ctx: Acting, asked: Asked, item: Pick<StoredItem, 'id'>, recurrence: string): Asked {
  const series = itemById(ctx.db, asked.itemId ?? -1);
  if (!series) return asked;
  const time = timeOfHappening(new Directory(ctx.db), series, happeningFor(series, recurrence));
  const state = copyOfHappening(asked.state, recurrence, time);
  const held = { calendarId: asked.calendarId, itemId: item.id, uid: asked.uid, recurrence };
  return insertMeeting(ctx.db, { ...held, part: 'attendee', state }, ctx.now) as Asked;
}

/** Answers at once, for a room or a thing, by what else is in its calendar. */
function answerBySelf(ctx: Acting, calendar: Calendar, me: Person, asked: Asked, free: boolean): void {
  const hand = handOf(me, me, ctx.now, asked.state.mine?.stamp ?? 0);
  const { copy, messages } = answerMeeting(asked.state, free ? 'accepted' : 'declined', null, hand);
  const next = { ...asked, state: copy };
  updateMeeting(ctx.db, next, ctx.now);
  projectAsked({ ...ctx, viewer: me }, calendar, me, next, null);
  dispatch({ ...ctx, viewer: me }, me, calendar, next, messages);
}

/** The calendar and owner of a meeting. */
export function homeOf(db: Connection, meeting: StoredMeeting): { calendar: Calendar; owner: Person } | null {
  const calendar = calendarById(db, meeting.calendarId);
  const owner = calendar && personById(db, calendar.ownerId);
  return calendar && owner ? { calendar, owner } : null;
}
