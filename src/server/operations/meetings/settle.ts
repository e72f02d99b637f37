import type { WrittenAnswer } from '@/contract/items/items.ts';
import { mayRun } from '@/core/access/index.ts';
import { type Invited, type Meeting, type Message, sameAddress } from '@/core/meetings/index.ts';
import { instantText } from '@/core/time/index.ts';
import { newKey } from '../../ids.ts';
import { type Calendar, mainCalendarOf } from '../../repositories/calendars.ts';
import {
  type AttendeeMeeting,
  insertMeeting,
  meetingByUid,
  type OrganiserMeeting,
  updateMeeting,
} from '../../repositories/meetings.ts';
import { personById } from '../../repositories/people.ts';
import { endSending, insertSending, renewSending, type Sending, sendingsWaiting } from '../../repositories/sendings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { type Context, type Decided, decideOn } from '../deciding/index.ts';
import { insideBy, outsideOf } from './invited.ts';
import { noteLeaving } from './leaving.ts';
import { calledOf, originOf, plan } from './plan.ts';
import { projectForAttendee } from './project.ts';
import { classificationOf } from './shape.ts';

/** How long what was decided can be taken back before it leaves. */
export const WAITS_MS = 10_000;

export const speaksOn = ({ decision }: Decided): boolean => mayRun(decision).speak;

/**
 * After a write on an item of the owner's: what has to be said for it waits from now on, or, where nothing has, is known as said. `wanted`
 * are those the writer would have there, where they said so. Within the transaction of the write.
 */
export function settle(
  ctx: Context,
  calendar: Calendar,
  item: StoredItem,
  more: { readonly wanted?: readonly Invited[] | null; readonly tellAll?: boolean; readonly undo: string },
): { readonly sending: Sending; readonly to: readonly string[] } | null {
  const { db, now } = ctx;
  const owner = personById(db, calendar.ownerId);
  if (!owner) return null;
  let called = calledOf(db, owner, item, now);
  if (!called) {
    if (!more.wanted || more.wanted.length === 0 || item.ownerInvited) return null;
    const { uid, recurrence } = item;
    const held = { calendarId: calendar.id, itemId: item.id, uid, recurrence };
    called = insertMeeting(db, { ...held, part: 'organiser', state: null, wanted: null }, now) as OrganiserMeeting;
  }
  // A list of people, so that it means the same after later changes.
  const wantedBefore = called.wanted ?? called.state?.invited ?? null;
  if (more.wanted !== undefined) called = { ...called, wanted: more.wanted && asKnown(more.wanted, called.state) };
  // Who says that all shall hear says it in its own words.
  if (more.tellAll === true && called.cover) called = { ...called, cover: null };
  if (called.itemId !== item.id) called = { ...called, itemId: item.id };
  updateMeeting(db, called, now);

  classifyCopies(ctx, called, item);
  const waiting = sendingsWaiting(db, called.id).find(
    (s): s is Extract<Sending, { act: 'tell' | 'off' }> => s.act === 'tell' || s.act === 'off',
  );
  const tellAll = more.tellAll === true || waiting?.body.tellAll === true;
  const origin = originOf(owner, ctx.viewer, now, called.state?.stamp ?? 0);
  const { meeting, messages } = plan(db, calendar, owner, called, item, tellAll, origin);
  if (messages.length === 0) {
    if (waiting) endSending(db, waiting.id, 'back');
    // What nobody has to hear is known from now on; of a meeting nobody was told of there is nothing to know.
    if (called.state?.state === 'sent' && item.removedAt === null)
      updateMeeting(db, { ...called, state: { ...meeting, stamp: called.state.stamp }, wanted: null }, now);
    return null;
  }
  const act = item.removedAt === null ? 'tell' : 'off';
  const to = toWhom(messages);
  const due = speaksOn(decideOn(ctx, calendar)) ? now + WAITS_MS : null;
  const body = { tellAll, wantedBefore };
  if (due !== null && act === 'tell') {
    // What waits for somebody who speaks was let go by nobody yet.
    const before = waiting && waiting.due !== null ? wantedBefore : null;
    noteLeaving(ctx, calendar, item, called, { to, before });
  }
  const one = { body, actorId: ctx.viewer.id, at: now, due, undoKey: more.undo };
  if (waiting && waiting.act !== act) endSending(db, waiting.id, 'back');
  if (waiting?.act === act) {
    renewSending(db, { ...one, id: waiting.id });
    return { sending: { ...waiting, ...one }, to };
  }
  const { id: meetingId } = called;
  return { sending: insertSending(db, { ...one, key: newKey(), meetingId, calendarId: calendar.id, act }), to };
}

/**
 * Marks the copies of those inside as private, or for few, where the meeting is so from now on: nobody is told of it, and nobody who may not
 * read it here reads it there.
 */
function classifyCopies(ctx: Context, { state, uid, recurrence }: OrganiserMeeting, { visibility }: StoredItem): void {
  const classification = classificationOf(visibility);
  if (state?.state !== 'sent' || !classification) return;
  for (const { address } of state.invited) {
    const inside = insideBy(ctx.db, address);
    const calendar = inside && mainCalendarOf(ctx.db, inside.id);
    const held = calendar && meetingByUid(ctx.db, calendar.id, uid, recurrence);
    if (!calendar || held?.part !== 'attendee' || !held.state.on || held.state.on.classification === classification)
      continue;
    const next: AttendeeMeeting = { ...held, state: { ...held.state, on: { ...held.state.on, classification } } };
    updateMeeting(ctx.db, next, ctx.now);
    projectForAttendee(ctx, calendar, inside, next, null, held.state);
  }
}

/** Those wanted at a meeting, with what only messages say of them: who sends them instead of themselves. */
function asKnown(wanted: readonly Invited[], state: Meeting | null): Invited[] {
  return wanted.map((one) => {
    const from = state?.invited.find((other) => sameAddress(other.address, one.address))?.delegatedFrom;
    return from === undefined ? one : { ...one, delegatedFrom: from };
  });
}

/** Everybody some messages go to, once each. */
export const toWhom = (messages: readonly Message[]): string[] => [...new Set(messages.flatMap((m) => m.to))];

/** What is said of a waiting sending to whoever brought it about. */
export function sendingWire(
  ctx: Context,
  sending: Sending,
  to: readonly string[],
): NonNullable<WrittenAnswer['sending']> {
  return {
    key: sending.key,
    to: to.length,
    outside: outsideOf(ctx.db, to).length,
    leaves: sending.due === null ? null : instantText(sending.due),
  };
}
