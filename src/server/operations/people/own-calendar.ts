import type { z } from 'zod';
import type { calendarBody } from '@/contract/people/people.ts';
import { isZone } from '@/core/time/index.ts';
import { newKey } from '../../ids.ts';
import { hub } from '../../live/hub.ts';
import {
  type Calendar,
  calendarByKey,
  calendarsOf,
  removedCalendar,
  saveCalendar,
  setCalendarRemoved,
} from '../../repositories/calendars.ts';
import { personById } from '../../repositories/people.ts';
import { recordTrail } from '../../repositories/trail.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { type Context, Directory, decideOn, operatorOf, tell } from '../deciding/index.ts';

const DONE = { done: true } as const;
const THIRTY_DAYS = 30 * 86_400_000;

/** One's own calendar by its key. Of another's one gets what one's sight of it allows: that it isn't one's own, or nothing. */
function findOwn(ctx: Context, key: string): Calendar | Refusal {
  const calendar = calendarByKey(ctx.db, key);
  if (!calendar) return refuse('notFound');
  if (calendar.ownerId === ctx.viewer.id) return calendar;
  if (decideOn(ctx, calendar).decision.rights.sight === 'nothing') return refuse('notFound');
  return refuse('ownerOnly', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
}

/** Tells the open windows of those who see something of a calendar now that it is another, once that is written. */
function tellSeers(ctx: Context, calendar: Calendar): void {
  const seers = hub()
    .listeners()
    .filter((listener) => {
      const viewer = typeof listener === 'number' ? personById(ctx.db, listener) : null;
      // Whoever holds a link asks again, and gets what there is.
      return !viewer || decideOn({ ...ctx, viewer }, calendar).decision.rights.sight !== 'nothing';
    });
  tell(ctx.db, seers, { kind: 'access', calendar: calendar.key });
}

function leave(ctx: Context, calendar: Calendar, verb: string, before: unknown, after: unknown): void {
  recordTrail(ctx.db, {
    key: newKey(),
    at: ctx.now,
    actorId: ctx.viewer.id,
    principalId: calendar.ownerId,
    collectionId: calendar.id,
    subject: calendar.key,
    verb,
    before,
    after,
    hands: operatorOf(ctx),
  });
}

/** Names one's own further calendar otherwise, says what it is for and on which clock its days are; the main one carries one's name and keeps it. */
export function changeCalendar(ctx: Context, key: string, body: z.infer<typeof calendarBody>): Result<typeof DONE> {
  return ctx.db.write(() => {
    const calendar = findOwn(ctx, key);
    if ('ok' in calendar) return calendar;
    const name = calendar.main ? calendar.name : body.name;
    const taken = calendarsOf(ctx.db, ctx.viewer.id).some(
      (c) => c.id !== calendar.id && c.name.toLowerCase() === name.toLowerCase(),
    );
    if (taken) return refuse('alreadyThere', { fields: { name: 'calendarTaken' } });
    const { name: was, description } = calendar;
    const zone = body.zone ?? calendar.zone;
    if (!isZone(zone)) return refuse('badInput', { fields: { zone: 'zone' } });
    saveCalendar(ctx.db, calendar.id, name, body.description, zone);
    leave(ctx, calendar, 'calendar.changed', { name: was, description, zone: calendar.zone }, { ...body, name, zone });
    tellSeers(ctx, calendar);
    return ok(DONE);
  });
}

/** Takes one's own further calendar away, with all that is in it: from then on nobody finds it, by whatever door. For thirty days it can be brought back. */
export function removeCalendar(ctx: Context, key: string): Result<typeof DONE> {
  return ctx.db.write(() => {
    const calendar = findOwn(ctx, key);
    if ('ok' in calendar) return calendar;
    if (calendar.main) return refuse('mainStays');
    tellSeers(ctx, calendar);
    setCalendarRemoved(ctx.db, calendar.id, ctx.now);
    leave(ctx, calendar, 'calendar.removed', { name: calendar.name }, null);
    return ok(DONE);
  });
}

/** Brings back one's own calendar as it was, with what others were given of it. */
export function bringCalendarBack(ctx: Context, key: string): Result<typeof DONE> {
  return ctx.db.write(() => {
    const gone = removedCalendar(ctx.db, key);
    if (!gone || gone.ownerId !== ctx.viewer.id || gone.removedAt < ctx.now - THIRTY_DAYS) return refuse('notFound');
    setCalendarRemoved(ctx.db, gone.id, null);
    const calendar = calendarByKey(ctx.db, key);
    if (!calendar) return refuse('notFound');
    leave(ctx, calendar, 'calendar.broughtBack', null, { name: calendar.name });
    tellSeers(ctx, calendar);
    return ok(DONE);
  });
}
