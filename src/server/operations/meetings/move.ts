import type { WrittenAnswer } from '@/contract/items/items.ts';
import type { MoveBody } from '@/contract/meetings/meetings.ts';
import { mayRun } from '@/core/access/index.ts';
import { changeMeeting, type Meeting, type Message, receiveAsAttendee, sameAddress } from '@/core/meetings/index.ts';
import { newKey } from '../../ids.ts';
import { type Calendar, calendarById, mainCalendarOf } from '../../repositories/calendars.ts';
import { itemById, itemsByUid, renameItem, replacementsOf } from '../../repositories/items.ts';
import {
  type AttendeeMeeting,
  meetingByUid,
  meetingsByUid,
  type OrganiserMeeting,
  updateMeeting,
} from '../../repositories/meetings.ts';
import { type Person, personById } from '../../repositories/people.ts';
import {
  type ItemTime,
  insertSending,
  moveSendings,
  type Sending,
  type SendingBodies,
  sendingsWaiting,
} from '../../repositories/sendings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type Context,
  Directory,
  decideOn,
  type FoundItem,
  findCalendar,
  findItem,
  isRefusal,
  mayOn,
  moveItems,
  noRoomFor,
  repeats,
  seriesOf,
  writeItems,
  written,
} from '../deciding/index.ts';
import { mayImport, noRoom, readWhen } from '../items/index.ts';
import { receive } from './deliver.ts';
import { insideBy } from './invited.ts';
import { mailOut } from './mail-out.ts';
import { calledOf, originOf } from './plan.ts';
import { projectForAttendee } from './project.ts';
import { saveArrived } from './save-messages.ts';
import { sendingWire, speaksOn, WAITS_MS } from './settle.ts';
import { timeOf } from './shape.ts';

/**
 * Moves an item that was booked in the wrong calendar into another: with its people, what they answered, and the whole of a series. Those
 * who were asked are told who calls it now, once its seconds are over. For whoever may remove it there and add here; what others call
 * stays where it is. All that is held of it goes along, the briefing, what a file brought and every occurrence that was changed by itself:
 * so it is for the owner, and for whoever arranges everything and speaks for them.
 */
export function moveMeeting(ctx: Context, id: string, body: MoveBody): Result<WrittenAnswer> {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return found;
  const { decided, item } = found;
  const from = decided.calendar;
  const names = new Directory(ctx.db);
  if (!found.may.remove) return refuse('mayNotRemove', { facts: { name: names.name(from.ownerId) } });
  if (!mayRun(decided.decision).whole) return refuse('mayNotSpeak', { facts: { name: names.name(from.ownerId) } });
  const target = findCalendar(ctx, body.to);
  if (isRefusal(target)) return target;
  const { calendar } = target;
  if (!target.decision.rights.add) return refuse('mayNotAdd', { facts: { name: names.name(calendar.ownerId) } });
  if (item.ownerInvited)
    return refuse('calledByOthers', { facts: { name: item.organiser?.name ?? item.organiser?.address ?? '' } });
  if (item.seriesId !== null) return refuse('seriesSplit');
  if (item.version !== body.version) return refuse('changedMeanwhile', { data: found.view });
  const when = body.when ? readWhen(body.when) : null;
  if (when && isRefusal(when)) return when;
  // Of a series all goes, each at its own time.
  if (when && repeats(item)) return refuse('seriesSplit');
  const time: ItemTime | null = when && { ...when, wall: null, days: 0 };
  const all = [item, ...replacementsOf(ctx.db, item.id)];
  // Lines kept from a file are shown on no screen; moved along, they could be exported by whoever moves the item.
  if (all.some((one) => one.kept.length > 0) && !mayImport(decided.decision))
    return refuse('keptStays', { facts: { name: names.name(from.ownerId) } });
  const full = noRoom(ctx, calendar, ctx.viewer.id, all.length) ?? noRoomFor(ctx.db, calendar, seriesOf(item, []));
  if (full) return full;
  const before = personById(ctx.db, from.ownerId);
  const owner = personById(ctx.db, calendar.ownerId);
  if (!before || !owner || calendar.id === from.id) return refuse('badInput', { fields: { to: 'unclear' } });
  return ctx.db.write(() => {
    // Parts of a series that the mover doesn't see could not be left behind, so such a series doesn't move. The refusal is the one any item
    // gets.
    if (all.some((one) => !mayOn(ctx, decided.decision, one).remove))
      return refuse('mayNotRemove', { facts: { name: names.name(from.ownerId) } });
    for (const one of all) calledOf(ctx.db, before, one, ctx.now);
    const known = calledBy(ctx, from, item.uid).filter((m) => m.state?.state === 'sent');
    // In another organiser's hands the meeting gets another UID: a UID belongs to the organiser who made it (RFC 5546, 2.1.4).
    const uid = known.length > 0 ? `${newKey()}@paramo` : item.uid;
    const main = relocate(ctx, item, from, calendar, owner, uid, time);
    const whole = known[0];
    let sending: WrittenAnswer['sending'] = null;
    if (whole && owner.id !== before.id) {
      const to = (whole.state as Meeting).invited.map((one) => one.address);
      const handover: SendingBodies['handover'] = { calendar: from.id, uid: item.uid, was: time && timeFields(item) };
      const due = speaksOn(target) ? ctx.now + WAITS_MS : null;
      const one = { key: newKey(), meetingId: whole.id, calendarId: calendar.id, act: 'handover' as const };
      const waits = { ...one, body: handover, actorId: ctx.viewer.id, at: ctx.now, due, undoKey: null };
      sending = sendingWire(ctx, insertSending(ctx.db, waits), to);
    }
    const answer = written(ctx, { decided: decideOn(ctx, calendar), item: main, undo: '' });
    return ok({ ...answer, ...(sending ? { sending } : {}) });
  });
}

/** Whether others have been asked to it already: its going elsewhere is said to them. */
export const isSaid = (ctx: Context, { decided, item }: FoundItem): boolean =>
  calledBy(ctx, decided.calendar, item.uid).some((m) => m.state?.state === 'sent');

const calledBy = (ctx: Context, calendar: Calendar, uid: string): OrganiserMeeting[] =>
  meetingsByUid(ctx.db, calendar.id, uid).filter((m) => m.part === 'organiser');

/** Puts an item, all of its series and what is held of it into another calendar, under a UID. Answers the item as it is there. */
function relocate(
  ctx: Context,
  item: StoredItem,
  from: Calendar,
  to: Calendar,
  owner: Person,
  uid: string,
  time: ItemTime | null,
): StoredItem {
  const all = [item, ...replacementsOf(ctx.db, item.id)];
  const meetings = calledBy(ctx, from, item.uid);
  const moved = all.map((one) => {
    const organiser = one.organiser && { name: owner.name, address: owner.address };
    const own = { ...authorship(ctx, to), createdFor: owner.id, organiser, calendarId: to.id, uid };
    // A set is of one calendar: what goes into another is a hold by itself.
    return { before: one, after: { ...one, ...own, ...time, holdSet: null, version: one.version + 1 } };
  });
  moveItems(ctx, from, to, moved);
  for (const m of meetings) {
    const invited = m.state?.invited.filter((one) => !sameAddress(one.address, owner.address)) ?? [];
    const state = m.state && { ...m.state, uid, organiser: owner.address, invited };
    updateMeeting(ctx.db, { ...m, uid, state, calendarId: to.id }, ctx.now);
    moveSendings(ctx.db, m.id, to.id);
  }
  return (moved[0] as (typeof moved)[number]).after;
}

/** Puts a meeting that went into another calendar back where it was, while nobody was told of it. */
export function moveBack(
  ctx: Context,
  called: OrganiserMeeting,
  sending: Extract<Sending, { act: 'handover' }>,
): boolean {
  const { calendar, uid, was } = sending.body;
  const [to, from] = [calendarById(ctx.db, calendar), calendarById(ctx.db, called.calendarId)];
  const item = called.itemId === null ? null : itemById(ctx.db, called.itemId);
  const owner = to && personById(ctx.db, to.ownerId);
  if (!to || !from || !item || !owner || item.removedAt !== null) return false;
  if (sendingsWaiting(ctx.db, called.id).some((s) => s.id !== sending.id)) return false;
  relocate(ctx, item, from, to, owner, uid, was);
  return true;
}

const timeFields = ({ start, end, allDay, zone, wall, days }: StoredItem): ItemTime => ({
  start,
  end,
  allDay,
  zone,
  wall,
  days,
});

/**
 * Says who calls a meeting now: those inside keep it as it is, with what they answered, under its new caller; for those outside the one
 * they know is called off by whoever called it, and the new one asks them.
 */
export function handOver(
  ctx: Context,
  called: OrganiserMeeting,
  home: { calendar: Calendar; owner: Person },
  body: SendingBodies['handover'],
): void {
  const { db, now } = ctx;
  const { calendar, owner } = home;
  const was = calendarById(db, body.calendar);
  const before = was && personById(db, was.ownerId);
  if (!was || !before) return;
  for (const meeting of calledBy(ctx, calendar, called.uid)) {
    if (meeting.state?.state !== 'sent') continue;
    const origin = originOf(owner, ctx.viewer, now, meeting.state.stamp);
    const item = meeting.itemId === null ? null : itemById(db, meeting.itemId);
    const time = item && { time: timeOf(new Directory(db), item) };
    const { meeting: state, messages } = changeMeeting(meeting.state, { ...time, tellAll: true }, origin);
    const next = { ...meeting, state };
    updateMeeting(db, next, now);
    dropOwnCopy(ctx, calendar, owner, body.uid, meeting.recurrence);
    for (const message of messages) for (const address of message.to) tell(ctx, next, message, address);
  }

  function tell(at: Context, meeting: OrganiserMeeting, message: Message, address: string): void {
    const inside = insideBy(db, address);
    if (!inside) {
      const { uid, recurrence, sequence, stamp } = message;
      const off: Message = {
        method: 'CANCEL',
        uid: body.uid,
        recurrence,
        organiser: (before as Person).address,
        sender: (before as Person).address,
        sentBy: at.viewer.id === before?.id ? null : at.viewer.address,
        sequence: sequence + 1,
        stamp,
        to: [address],
      };
      mailOut(at, before as Person, was as Calendar, meeting, off, address);
      mailOut(at, owner, calendar, { ...meeting, uid }, message, address);
      return;
    }
    const theirs = mainCalendarOf(db, inside.id);
    const held = theirs && meetingByUid(db, theirs.id, body.uid, message.recurrence);
    if (!theirs || held?.part !== 'attendee') {
      receive(at, message, inside, null);
      return;
    }
    const copy = { ...held.state, uid: message.uid, organiser: owner.address };
    const state = receiveAsAttendee(copy, message, copy.me) ?? copy;
    const invitation: AttendeeMeeting = { ...held, uid: message.uid, state };
    updateMeeting(db, invitation, now);
    const item = held.itemId === null ? null : itemById(db, held.itemId);
    if (item) renameItem(db, item.id, message.uid);
    projectForAttendee(at, theirs, inside, invitation, owner.name);
    saveArrived(at, inside, invitation, message, null, 'change', { why: 'callsItNow' });
  }
}

/** Whoever calls a meeting now has no invitation to it any more. */
function dropOwnCopy(ctx: Context, calendar: Calendar, owner: Person, uid: string, recurrence: string | null): void {
  const main = mainCalendarOf(ctx.db, owner.id);
  const copy = main && itemsByUid(ctx.db, main.id, uid).find((i) => i.recurrence === recurrence);
  if (!main || !copy || (copy.uid === uid && copy.calendarId === calendar.id && !copy.ownerInvited)) return;
  const after = { ...copy, removedAt: ctx.now, version: copy.version + 1 };
  writeItems(ctx, main, 'item.removed', [{ before: copy, after }]);
}
