import type { WrittenAnswer } from '@/contract/items/items.ts';
import type { MeetingAct } from '@/contract/meetings/meetings.ts';
import { answerOf, sameAddress } from '@/core/meetings/index.ts';
import { dateText, toWall, wallText } from '@/core/time/index.ts';
import { newKey } from '../../ids.ts';
import { itemById } from '../../repositories/items.ts';
import { meetingById, type OrganiserMeeting } from '../../repositories/meetings.ts';
import { tryAgain } from '../../repositories/outgoing-mail.ts';
import {
  endSending,
  insertSending,
  renewSending,
  type SendingBodies,
  sendingByKey,
  sendingsWaiting,
} from '../../repositories/sendings.ts';
import { trailByKey } from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, Directory, decideOn, type FoundItem, findItem, isRefusal } from '../deciding/index.ts';
import { answerBack } from './answer.ts';
import { noteLeaving } from './leaving.ts';
import { moveBack } from './move.ts';
import { calledOf } from './plan.ts';
import { changeMeeting, undoMeeting } from './save.ts';
import { sendingWire, speaksOn, WAITS_MS } from './settle.ts';
import { storedTime } from './shape.ts';
import { homeOf } from './tell.ts';

/**
 * What is done with a meeting the owner calls beside changing it: asking once more who hasn't answered, taking a proposed time or
 * declining it with a word, sending mail again that couldn't go. For whoever may change it; what is said of it waits its seconds.
 */
export function actOnMeeting(ctx: Context, id: string, body: MeetingAct): Result<WrittenAnswer> {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return found;
  const owner = new Directory(ctx.db).person(found.decided.calendar.ownerId);
  if (!found.may.change) return refuse('mayNotChange', { facts: { name: owner?.name ?? '' } });
  if (!owner) return refuse('notFound');
  return ctx.db.write(() => {
    const called = calledOf(ctx.db, owner, found.item, ctx.now);
    if (called?.state?.state !== 'sent') return refuse('noMeeting');
    switch (body.act) {
      case 'nudge': {
        const isIncluded = (address: string) => !body.whom || body.whom.includes(address.toLowerCase());
        const to = called.state.invited
          .map((one) => one.address)
          .filter((one) => isIncluded(one) && called.state && answerOf(called.state, one) === 'needs-action');
        if (to.length === 0) return refuse('allAnswered');
        return ok(waiting(ctx, found, called, { act: 'nudge', body: { whom: to } }, to));
      }
      case 'takeCounter': {
        const counter = called.state.counters.find((c) => sameAddress(c.attendee, body.attendee));
        if (!counter) return refuse('counterGone');
        // On the clock the meeting keeps, whatever clock it was proposed on.
        const time = storedTime(counter.time);
        if (!time) return refuse('counterGone');
        const { allDay } = time;
        const zone = new Directory(ctx.db).zone(
          found.item.allDay && !allDay ? found.decided.calendar.zone : found.item.zone,
        );
        const text = (at: number) => (allDay ? dateText(at) : wallText(toWall(zone, at)));
        const when = { start: text(time.start), end: text(time.end), allDay, zone };
        const { version } = body;
        const scope = found.occurrence ? ('one' as const) : ('all' as const);
        return changeMeeting(ctx, id, { version, scope, when, fields: {}, tellAll: false });
      }
      case 'declineCounter': {
        if (!called.state.counters.some((c) => sameAddress(c.attendee, body.attendee))) return refuse('counterGone');
        const { attendee, comment } = body;
        return ok(
          waiting(ctx, found, called, { act: 'declineCounter', body: { attendee, comment: comment || null } }, [
            attendee,
          ]),
        );
      }
      case 'mailAgain': {
        if (tryAgain(ctx.db, called.id, body.attendee, ctx.now) === 0) return refuse('nothingToSend');
        return ok({ item: found.view, undo: '' });
      }
      default:
        return body satisfies never;
    }
  });
}

function waiting(
  ctx: Context,
  found: FoundItem,
  called: OrganiserMeeting,
  said:
    | { act: 'nudge'; body: SendingBodies['nudge'] }
    | { act: 'declineCounter'; body: SendingBodies['declineCounter'] },
  to: readonly string[],
): WrittenAnswer {
  for (const s of sendingsWaiting(ctx.db, called.id))
    if (s.act === said.act && JSON.stringify(s.body) === JSON.stringify(said.body)) endSending(ctx.db, s.id, 'back');
  const sending = insertSending(ctx.db, {
    key: newKey(),
    meetingId: called.id,
    calendarId: called.calendarId,
    ...said,
    actorId: ctx.viewer.id,
    at: ctx.now,
    due: speaksOn(found.decided) ? ctx.now + WAITS_MS : null,
    undoKey: null,
  });
  return { item: found.view, undo: '', sending: sendingWire(ctx, sending, to) };
}

/** Something that waits, for whoever may speak for its calendar's owner or brought it about; others get what they would of none. */
function findWaiting(ctx: Context, key: string) {
  const sending = sendingByKey(ctx.db, key);
  const meeting = sending && meetingById(ctx.db, sending.meetingId);
  const home = meeting && homeOf(ctx.db, meeting);
  if (!sending || !meeting || !home) return refuse('notFound');
  const decided = decideOn(ctx, home.calendar);
  if (decided.decision.rights.sight === 'nothing') return refuse('notFound');
  const speaks = speaksOn(decided);
  const own = sending.actorId === ctx.viewer.id;
  // What answers in somebody's name is theirs who speak for them; what changes a meeting is also theirs who arrange everything.
  const arranges = meeting.part === 'organiser' && decided.decision.rights.change === 'all';
  if (!own && !speaks && !arranges) return refuse('notFound');
  return { sending, meeting, home, decided, speaks, own };
}

/** Says what waits for somebody who may: in the principal's name and as one's own act, after the same seconds. */
export function sayIt(ctx: Context, key: string): Result<{ done: true }> {
  const found = findWaiting(ctx, key);
  if ('ok' in found) return found;
  const { sending, meeting, speaks, home } = found;
  if (!speaks) return refuse('mayNotSpeak', { facts: { name: home.owner.name } });
  if (sending.state !== 'waiting') return refuse('leftAlready');
  const item = meeting.itemId === null ? null : itemById(ctx.db, meeting.itemId);
  if (sending.act === 'tell' && meeting.part === 'organiser' && item) {
    const people = meeting.wanted ?? meeting.state?.invited ?? [];
    noteLeaving(ctx, home.calendar, item, meeting, { to: people.map((one) => one.address), before: null });
  }
  renewSending(ctx.db, { ...sending, actorId: ctx.viewer.id, due: ctx.now + WAITS_MS });
  return ok({ done: true });
}

/** Takes back what hasn't left: the item is as before, and nobody heard of anything. */
export function takeBack(ctx: Context, key: string): Result<{ done: true }> {
  const found = findWaiting(ctx, key);
  if ('ok' in found) return found;
  const { sending, meeting } = found;
  if (sending.state !== 'waiting') return refuse('leftAlready');
  return ctx.db.write(() => {
    if (sending.act === 'tell' || sending.act === 'off') {
      if (!sending.undoKey) return refuse('leftAlready');
      const back = undoMeeting(ctx, sending.undoKey);
      return back.ok ? ok({ done: true as const }) : back;
    }
    if (sending.act === 'handover') {
      if (meeting.part !== 'organiser' || !moveBack(ctx, meeting, sending)) return refuse('changedMeanwhile');
      endSending(ctx.db, sending.id, 'back');
      return ok({ done: true as const });
    }
    // What was declined by taking it out of the calendar comes back with it: the answer then goes back with the removal.
    if (sending.act === 'answer' && sending.undoKey && trailByKey(ctx.db, sending.undoKey)?.verb !== 'item.answered') {
      const back = undoMeeting(ctx, sending.undoKey);
      return back.ok ? ok({ done: true as const }) : back;
    }
    endSending(ctx.db, sending.id, 'back');
    if (meeting.part === 'attendee' && (sending.act === 'answer' || sending.act === 'propose'))
      answerBack(ctx, meeting);
    return ok({ done: true as const });
  });
}
