import {
  type Answered,
  answerMeeting,
  type Copy,
  callOff,
  declineCounter,
  type Message,
  nudge,
  type Origin,
  proposeTime,
  requestRefresh,
} from '@/core/meetings/index.ts';
import type { Connection } from '../../db/index.ts';
import { log } from '../../log.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import { itemById } from '../../repositories/items.ts';
import { meetingById, type StoredMeeting, updateMeeting } from '../../repositories/meetings.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { endSending, renewSending, type Sending, sendingByKey, sendingsDue } from '../../repositories/sendings.ts';
import { type Context, decideOn } from '../deciding/index.ts';
import { dispatch } from './deliver.ts';
import { handOver } from './move.ts';
import { originOf, plan } from './plan.ts';
import { projectForAttendee, projectForOrganiser } from './project.ts';
import { speaksOn } from './settle.ts';
import { homeOf, tellReaders } from './tell.ts';

const MOST = 100;
const AGAIN_MS = 60_000;

/**
 * Says what has waited its seconds, each in one transaction: the meeting as it stands from then on, what reaches those inside, and the
 * mail to those outside, or nothing of it. What whoever decided it may not say any more waits for somebody who may. Answers how many.
 */
export function releaseDue(db: Connection, now: number): number {
  let gone = 0;
  for (const sending of sendingsDue(db, now, MOST)) {
    try {
      gone += Number(db.write(() => release(db, now, sending)));
    } catch (error) {
      log().error({ sending: sending.key, error: String(error) }, 'what waited could not be said');
      db.write(() => renewSending(db, { ...sending, due: now + AGAIN_MS }));
    }
  }
  return gone;
}

function release(db: Connection, now: number, due: Sending): boolean {
  const sending = sendingByKey(db, due.key);
  if (sending?.state !== 'waiting' || sending.due === null) return false;
  const meeting = meetingById(db, sending.meetingId);
  const home = meeting && homeOf(db, meeting);
  const actor = personById(db, sending.actorId);
  if (!meeting || !home || !actor) return !endSending(db, sending.id, 'back');
  const ctx: Context = { db, now, viewer: actor };
  if (!speaksOn(decideOn(ctx, home.calendar))) {
    renewSending(db, { ...sending, due: null });
    tellReaders(db, home.calendar);
    return false;
  }
  if (sending.act === 'handover' && meeting.part === 'organiser') {
    endSending(db, sending.id, 'gone');
    handOver(ctx, meeting, home, sending.body);
    return true;
  }
  const { next, messages } = perform(ctx, home.calendar, home.owner, meeting, sending);
  endSending(db, sending.id, 'gone');
  updateMeeting(db, next, now);
  if (next.part === 'organiser') projectForOrganiser(ctx, home.calendar, home.owner, next);
  else projectForAttendee(ctx, home.calendar, home.owner, next, null);
  dispatch(ctx, home.owner, home.calendar, next, messages);
  return true;
}

function perform(
  ctx: Context,
  calendar: Calendar,
  owner: Person,
  meeting: StoredMeeting,
  sending: Sending,
): { next: StoredMeeting; messages: readonly Message[] } {
  const { db, now } = ctx;
  const stays = { next: meeting, messages: [] };
  if (meeting.part === 'attendee') {
    const origin = originOf(
      owner,
      ctx.viewer,
      now,
      Math.max(meeting.state.mine?.stamp ?? 0, meeting.state.proposed?.revision.stamp ?? 0),
    );
    const made = answered(meeting.state, sending, origin);
    return made ? { next: { ...meeting, state: made.copy }, messages: made.messages } : stays;
  }
  const origin = originOf(owner, ctx.viewer, now, meeting.state?.stamp ?? 0);
  const item = meeting.itemId === null ? null : itemById(db, meeting.itemId);
  if (sending.act === 'tell' || sending.act === 'off') {
    if (!item) {
      const off = meeting.state && callOff(meeting.state, origin);
      return off ? { next: { ...meeting, state: off.meeting, wanted: null }, messages: off.messages } : stays;
    }
    const told = plan(db, calendar, owner, meeting, item, sending.body.tellAll, origin);
    return { next: { ...meeting, state: told.meeting, wanted: null }, messages: told.messages };
  }
  if (!meeting.state) return stays;
  if (sending.act === 'nudge') {
    const nudged = nudge(meeting.state, origin, sending.body.whom ?? undefined);
    return { next: { ...meeting, state: { ...nudged.meeting, stamp: origin.stamp } }, messages: nudged.messages };
  }
  if (sending.act === 'declineCounter') {
    const { attendee, comment } = sending.body;
    const declined = declineCounter(meeting.state, attendee, comment, origin);
    return { next: { ...meeting, state: declined.meeting }, messages: declined.messages };
  }
  return stays;
}

/** What somebody asked says, and their copy after it; `null` for what isn't theirs to say. */
function answered(copy: Copy, { act, body }: Sending, origin: Origin): Answered | null {
  if (act === 'refresh') return requestRefresh(copy, origin);
  if (act === 'propose') return proposeTime(copy, body.time, body.comment, origin);
  return act === 'answer' ? answerMeeting(copy, body.answer, body.comment, origin) : null;
}
