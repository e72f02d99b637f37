import type { WrittenAnswer } from '@/contract/items/items.ts';
import type { AnswerBody } from '@/contract/meetings/meetings.ts';
import { myAnswer, myProposal, sameAddress, stateOf } from '@/core/meetings/index.ts';

import { newKey } from '../../ids.ts';
import { type Calendar, calendarById } from '../../repositories/calendars.ts';
import { itemById } from '../../repositories/items.ts';
import { type AttendeeMeeting, meetingById, meetingOfItem, type StoredMeeting } from '../../repositories/meetings.ts';
import { type Person, personById } from '../../repositories/people.ts';
import {
  endSending,
  insertSending,
  renewSending,
  type Sending,
  type SendingBodies,
  sendingsByUndo,
  sendingsWaiting,
} from '../../repositories/sendings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { itemStates, trailByKey } from '../../repositories/trail.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  type Context,
  Directory,
  decideOn,
  type FoundItem,
  findByAnyId,
  isRefusal,
  mayOn,
  writeItems,
  written,
} from '../deciding/index.ts';
import { readWhen } from '../items/index.ts';
import { apart } from './apart.ts';
import { invitationToOccurrence, invitedByFile } from './find-meeting.ts';
import { sendingWire, WAITS_MS } from './settle.ts';
import { fieldsFromCopy, timeOf } from './shape.ts';
import { tellReaders } from './tell.ts';

type AnswerSending = SendingBodies['answer'];

/**
 * Answers an invitation in the name of the calendar's owner: for the owner, and for whoever speaks for them. The answer shows in the
 * calendar at once and is sent after some seconds. The first answer settles it: a later one is refused, with who answered and when, unless
 * its sender has seen that.
 */
export function answerItem(ctx: Context, id: string, body: AnswerBody): Result<WrittenAnswer> {
  // The right to answer is read in the transaction that answers.
  return ctx.db.write(() => {
    // Whoever speaks answers at whatever sight they see it, by the id they were given.
    const found = findByAnyId(ctx, id);
    if (isRefusal(found)) return found;
    if (!found.may.answer) return refuse('mayNotAnswer', { facts: { name: ownerOf(ctx, found)?.name ?? '' } });
    if (found.item.cancelled) return refuse('meetingOff');
    const moved = body.answer === 'another' ? readWhen(body.when) : null;
    if (moved && isRefusal(moved)) return moved;
    const one = found.occurrence !== null && body.scope === 'one';
    const target =
      one && found.occurrence ? apart(ctx, found.decided.calendar, found.item, found.occurrence) : found.item;
    if (target.organiser === null && body.answer !== 'another') return answerAlone(ctx, found, target, body.answer);
    const invitation = invitationOf(ctx, found, target);
    if (!invitation || stateOf(invitation.state) !== 'invited') return refuse('meetingOff');
    const closed = closedBy(ctx, invitation);
    // Who answered, and what, is for those who see it in full.
    if (closed && body.seen !== closed.answer)
      return 'notes' in found.view
        ? refuse('answeredMeanwhile', { facts: { name: closed.name, answer: closed.answer }, data: closed })
        : refuse('changedMeanwhile');
    const comment = body.comment.trim() || null;
    if (body.answer === 'another' && moved) {
      const time = timeOf(new Directory(ctx.db), { ...moved, wall: null, rule: null, added: [], left: [] });
      const sending = wait(ctx, invitation, { act: 'propose', body: { time, comment } });
      return ok(answeredWith(ctx, found, target, '', sending));
    }
    if (body.answer === 'another') return refuse('badInput', { fields: { start: 'start' } });
    const { sending, undo, item } = put(ctx, found, target, invitation, { answer: body.answer, comment });
    // Taking the write back takes the answer back.
    const waits = { ...sending, undoKey: undo };
    renewSending(ctx.db, waits);
    return ok(answeredWith(ctx, found, item, undo, waits));
  });
}

/** Answers what nobody called, as a file may bring it in: it stands in the calendar, and nobody is told. */
function answerAlone(
  ctx: Context,
  found: FoundItem,
  before: StoredItem,
  answer: AnswerSending['answer'],
): Result<WrittenAnswer> {
  const { calendar } = found.decided;
  const item = answeredAs(ctx, calendar, before, ownerOf(ctx, found)?.address ?? '', answer);
  const { undo } = writeItems(ctx, calendar, 'item.answered', [{ before, after: item }]);
  const at = found.occurrence && item.id === found.item.id ? found.occurrence : undefined;
  return ok(written(ctx, { decided: found.decided, item, undo, occurrence: at }));
}

/** An item with its owner's answer, and who gave it where that isn't the owner. */
function answeredAs(
  ctx: Context,
  calendar: Calendar,
  before: StoredItem,
  address: string,
  answer: AnswerSending['answer'],
): StoredItem {
  const attendees = before.attendees.map((one) => {
    const { by: _by, ...plain } = one;
    const name = ctx.viewer.id === calendar.ownerId ? {} : { by: ctx.viewer.address };
    return sameAddress(one.address, address) ? { ...plain, answer, ...name } : one;
  });
  return { ...before, attendees, ownerAnswer: answer, ownerInvited: true };
}

/**
 * Takes back an answer by the token of the write that gave it, for whoever gave it and still may: as long as it waits to leave, or where it went
 * to nobody. `null` where the token is of something else.
 */
export function undoAnswer(ctx: Context, key: string): Result<WrittenAnswer> | null {
  const entry = trailByKey(ctx.db, key);
  if (entry?.verb !== 'item.answered') return null;
  const states = itemStates(entry);
  const [[after], [before]] = [states.after, states.before];
  const item = after && itemById(ctx.db, after.id);
  const calendar = item && calendarById(ctx.db, item.calendarId);
  if (entry.actorId !== ctx.viewer.id || !item || !calendar || !before) return refuse('notFound');
  const decided = decideOn(ctx, calendar);
  if (decided.decision.rights.sight === 'nothing') return refuse('notFound');
  const name = personById(ctx.db, calendar.ownerId)?.name ?? '';
  if (!mayOn(ctx, decided.decision, item).answer) return refuse('mayNotAnswer', { facts: { name } });
  const [sending] = sendingsByUndo(ctx.db, key);
  if (sending) {
    const meeting = meetingById(ctx.db, sending.meetingId);
    if (meeting?.part !== 'attendee' || !endSending(ctx.db, sending.id, 'back')) return refuse('leftAlready');
    answerBack(ctx, meeting);
  } else {
    if (item.organiser !== null) return refuse('leftAlready');
    if (item.ownerAnswer !== after.ownerAnswer) return refuse('changedMeanwhile');
    const back = { ...item, attendees: before.attendees, ownerAnswer: before.ownerAnswer };
    writeItems(ctx, calendar, 'item.answered', [{ before: item, after: back }]);
  }
  return ok(written(ctx, { decided, item: itemById(ctx.db, item.id), undo: '' }));
}

const ownerOf = (ctx: Context, found: FoundItem): Person | null => personById(ctx.db, found.decided.calendar.ownerId);

function answeredWith(ctx: Context, found: FoundItem, item: StoredItem, undo: string, sending: Sending): WrittenAnswer {
  const at = found.occurrence && item.id === found.item.id ? found.occurrence : undefined;
  const to = [item.organiser?.address ?? ''];
  return {
    ...written(ctx, { decided: found.decided, item, undo, occurrence: at }),
    sending: sendingWire(ctx, sending, to),
  };
}

/** The same for what is being removed, all of it or an occurrence that stands by itself now: in the transaction that removes it. */
export function answerInvitation(
  ctx: Context,
  found: FoundItem,
  item: StoredItem,
  what: AnswerSending,
): Sending | Refusal {
  const invitation = invitationOf(ctx, found, item);
  if (!invitation) return refuse('meetingOff');
  return put(ctx, found, item, invitation, what).sending;
}

function put(ctx: Context, found: FoundItem, before: StoredItem, invitation: AttendeeMeeting, what: AnswerSending) {
  const { calendar } = found.decided;
  const sending = wait(ctx, invitation, { act: 'answer', body: what });
  const item = answeredAs(ctx, calendar, before, invitation.state.me, what.answer);
  const { undo } = writeItems(ctx, calendar, 'item.answered', [{ before, after: item }]);
  tellReaders(ctx.db, calendar);
  return { sending, undo, item };
}

/** Lets what one answers wait for its seconds; what was to be answered before doesn't leave any more. */
function wait(
  ctx: Context,
  invitation: AttendeeMeeting,
  said: { act: 'answer'; body: AnswerSending } | { act: 'propose'; body: SendingBodies['propose'] },
): Sending {
  for (const s of sendingsWaiting(ctx.db, invitation.id))
    if (s.act === 'answer' || s.act === 'propose') endSending(ctx.db, s.id, 'back');
  return insertSending(ctx.db, {
    key: newKey(),
    meetingId: invitation.id,
    calendarId: invitation.calendarId,
    ...said,
    actorId: ctx.viewer.id,
    at: ctx.now,
    due: ctx.now + WAITS_MS,
    undoKey: null,
  });
}

/** What the owner was asked to, as it is held; of what a file brought in, from now on. */
function invitationOf(ctx: Context, found: FoundItem, item: StoredItem): AttendeeMeeting | null {
  const { calendar } = found.decided;
  const known = meetingOfItem(ctx.db, item.id);
  if (known) return known.part === 'attendee' ? known : null;
  const owner = ownerOf(ctx, found);
  if (!owner) return null;
  if (item.id !== found.item.id && item.recurrence !== null) {
    const series = invitationOf(ctx, found, found.item);
    return series && invitationToOccurrence(ctx, series, item, item.recurrence);
  }
  return invitedByFile(ctx.db, calendar, owner, item);
}

/** How an invitation was answered, by whom and when: whether it left already or not. */
export interface Closed {
  readonly answer: 'accepted' | 'declined' | 'tentative' | 'another';
  readonly name: string;
  readonly at: number;
}

/** How an invitation was answered; of a meeting that the owner calls there is nothing to answer. */
export const answeredOf = (ctx: Pick<Context, 'db'>, meeting: StoredMeeting): Closed | null =>
  meeting.part === 'attendee' ? closedBy(ctx, meeting) : null;

export function closedBy(ctx: Pick<Context, 'db'>, invitation: AttendeeMeeting): Closed | null {
  const waiting = sendingsWaiting(ctx.db, invitation.id).findLast((s) => s.act === 'answer' || s.act === 'propose');
  if (waiting) {
    const answer = waiting.act === 'answer' ? waiting.body.answer : 'another';
    return { answer, name: personById(ctx.db, waiting.actorId)?.name ?? '', at: waiting.at };
  }
  const { state } = invitation;
  const mine = myAnswer(state);
  const { proposed } = state;
  if (proposed && myProposal(state))
    return { answer: 'another', name: nameOf(ctx, proposed.sentBy ?? state.me), at: proposed.revision.stamp };
  if (mine === 'needs-action' || !state.mine) return null;
  return { answer: mine, name: nameOf(ctx, state.mine.sentBy ?? state.me), at: state.mine.stamp };
}

function nameOf({ db }: Pick<Context, 'db'>, address: string): string {
  return new Directory(db).byAddress(address);
}

/** Puts back what an answer that was taken back had changed. */
export function answerBack(ctx: Context, invitation: AttendeeMeeting): void {
  const before = invitation.itemId === null ? null : itemById(ctx.db, invitation.itemId);
  const calendar = calendarById(ctx.db, invitation.calendarId);
  if (!before || !calendar) return;
  const own = fieldsFromCopy(invitation.state, before.organiser?.name ?? null);
  const after = { ...before, attendees: own.attendees, ownerAnswer: own.ownerAnswer };
  writeItems(ctx, calendar, 'item.answered', [{ before, after }]);
  tellReaders(ctx.db, calendar);
}
