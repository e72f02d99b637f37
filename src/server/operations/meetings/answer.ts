import type { WrittenAnswer } from '@/contract/items.ts';
import type { AnswerBody } from '@/contract/meetings.ts';
import { type Copy, myAnswer, myProposal, stateOf } from '@/core/meetings/index.ts';

import { newKey } from '../../ids.ts';
import { calendarById } from '../../repositories/calendars.ts';
import { itemById, updateItem } from '../../repositories/items.ts';
import { type Asked, meetingOfItem, type StoredMeeting } from '../../repositories/meetings.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { endSending, insertSending, type Sending, sendingsWaiting } from '../../repositories/sendings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  announceItems,
  type Context,
  Directory,
  type FoundItem,
  findItem,
  isRefusal,
  trailItems,
  written,
} from '../deciding/index.ts';
import { readWhen } from '../items/index.ts';
import { apart } from './apart.ts';
import { askedByFile, askedToHappening } from './deliver.ts';
import { sendingWire, WAITS_MS } from './settle.ts';
import { fieldsFromCopy, timeOf } from './shape.ts';
import { tellReaders } from './tell.ts';

/** What an answer carries until it leaves. */
export interface AnswerSending {
  readonly answer: 'accepted' | 'declined' | 'tentative';
  readonly comment: string | null;
}

/** A time that is proposed instead, until it leaves. */
export interface ProposeSending {
  readonly time: Copy['times'][number]['time'];
  readonly comment: string | null;
}

/**
 * Answers an invitation in the name of whose calendar it is in: for the owner, and for whoever speaks for them. The answer stands in the
 * calendar at once and leaves after some seconds. Whoever answers first closes it: another answer than the one that was seen is refused
 * with who gave it and when, and given over it only by somebody who has read that.
 */
export function answerItem(ctx: Context, id: string, body: AnswerBody): Result<WrittenAnswer> {
  // The right to answer is read in the transaction that answers.
  return ctx.db.write(() => {
    const found = findItem(ctx, id);
    if (isRefusal(found)) return found;
    if (!found.may.answer) return refuse('mayNotAnswer', { facts: { name: ownerOf(ctx, found)?.name ?? '' } });
    if (found.item.cancelled) return refuse('meetingOff');
    const moved = body.answer === 'another' ? readWhen(body.when) : null;
    if (moved && isRefusal(moved)) return moved;
    const one = found.happening !== null && body.scope === 'one';
    const target =
      one && found.happening ? apart(ctx, found.decided.calendar, found.item, found.happening) : found.item;
    const asked = askedOf(ctx, found, target);
    if (!asked || stateOf(asked.state) !== 'invited') return refuse('meetingOff');
    const closed = closedBy(ctx, asked);
    if (closed && body.seen !== closed.answer)
      return refuse('answeredMeanwhile', { facts: { name: closed.name, answer: closed.answer }, data: closed });
    const comment = body.comment.trim() || null;
    if (body.answer === 'another' && moved) {
      const time = timeOf(new Directory(ctx.db), { ...moved, wall: null, rule: null, added: [], left: [] });
      const sending = wait(ctx, asked, 'propose', { time, comment });
      return ok(answeredWith(ctx, found, target, '', sending));
    }
    if (body.answer === 'another') return refuse('badInput', { fields: { start: 'start' } });
    const { sending, undo, item } = put(ctx, found, target, asked, { answer: body.answer, comment });
    return ok(answeredWith(ctx, found, item, undo, sending));
  });
}

const ownerOf = (ctx: Context, found: FoundItem): Person | null => personById(ctx.db, found.decided.calendar.ownerId);

function answeredWith(ctx: Context, found: FoundItem, item: StoredItem, undo: string, sending: Sending): WrittenAnswer {
  const at = found.happening && item.id === found.item.id ? found.happening : undefined;
  const to = [item.organiser?.address ?? ''];
  return { ...written(ctx, found.decided, item, undo, at), sending: sendingWire(ctx, sending, to) };
}

/** The same for what is being removed, all of it or a happening that stands by itself now: in the transaction that removes it. */
export function answerAsked(ctx: Context, found: FoundItem, item: StoredItem, what: AnswerSending): Sending | Refusal {
  const asked = askedOf(ctx, found, item);
  if (!asked) return refuse('meetingOff');
  return put(ctx, found, item, asked, what).sending;
}

function put(ctx: Context, found: FoundItem, before: StoredItem, asked: Asked, what: AnswerSending) {
  const { calendar } = found.decided;
  const sending = wait(ctx, asked, 'answer', what);
  const me = asked.state.me.toLowerCase();
  const attendees = before.attendees.map((one) => {
    const { by: _by, ...plain } = one;
    const name = ctx.viewer.id === calendar.ownerId ? {} : { by: ctx.viewer.address };
    return one.address.toLowerCase() === me ? { ...plain, answer: what.answer, ...name } : one;
  });
  const item: StoredItem = { ...before, attendees, ownerAnswer: what.answer, ownerInvited: true };
  updateItem(ctx.db, item);
  const undo = trailItems(ctx, calendar, 'item.answered', [{ before, after: item }]);
  announceItems(ctx, calendar, [{ before, after: item }]);
  tellReaders(ctx.db, calendar);
  return { sending, undo, item };
}

/** Lets what one answers wait for its seconds; what was to be answered before doesn't leave any more. */
function wait(ctx: Context, asked: Asked, act: 'answer' | 'propose', body: AnswerSending | ProposeSending): Sending {
  for (const s of sendingsWaiting(ctx.db, asked.id))
    if (s.act === 'answer' || s.act === 'propose') endSending(ctx.db, s.id, 'back');
  return insertSending(ctx.db, {
    key: newKey(),
    meetingId: asked.id,
    calendarId: asked.calendarId,
    act,
    body,
    actorId: ctx.viewer.id,
    at: ctx.now,
    due: ctx.now + WAITS_MS,
    undoKey: null,
  });
}

/** What the owner was asked to, as it is held; of what a file brought in, from now on. */
function askedOf(ctx: Context, found: FoundItem, item: StoredItem): Asked | null {
  const { calendar } = found.decided;
  const known = meetingOfItem(ctx.db, item.id);
  if (known) return known.part === 'attendee' ? known : null;
  const owner = ownerOf(ctx, found);
  if (!owner) return null;
  if (item.id !== found.item.id && item.recurrence !== null) {
    const series = askedOf(ctx, found, found.item);
    return series && askedToHappening(ctx, series, item, item.recurrence);
  }
  return askedByFile(ctx.db, calendar, owner, item);
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

export function closedBy(ctx: Pick<Context, 'db'>, asked: Asked): Closed | null {
  const waiting = sendingsWaiting(ctx.db, asked.id).findLast((s) => s.act === 'answer' || s.act === 'propose');
  if (waiting) {
    const answer = waiting.act === 'propose' ? 'another' : (waiting.body as AnswerSending).answer;
    return { answer, name: personById(ctx.db, waiting.actorId)?.name ?? '', at: waiting.at };
  }
  const { state } = asked;
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
export function answerBack(ctx: Context, asked: Asked): void {
  const before = asked.itemId === null ? null : itemById(ctx.db, asked.itemId);
  const calendar = calendarById(ctx.db, asked.calendarId);
  if (!before || !calendar) return;
  const own = fieldsFromCopy(asked.state, before.organiser?.name ?? null);
  const after = { ...before, attendees: own.attendees, ownerAnswer: own.ownerAnswer };
  updateItem(ctx.db, after);
  trailItems(ctx, calendar, 'item.answered', [{ before, after }]);
  announceItems(ctx, calendar, [{ before, after }]);
  tellReaders(ctx.db, calendar);
}
