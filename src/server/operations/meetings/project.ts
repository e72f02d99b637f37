import { freshFields, pick, SAID_FIELDS, type Visibility } from '@/core/calendar/index.ts';
import { type Classification, type Copy, type Meeting, sameAddress } from '@/core/meetings/index.ts';
import type { Connection } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import { countItems, itemById, itemsByUid, MADE_HERE } from '../../repositories/items.ts';
import { type AttendeeMeeting, type OrganiserMeeting, updateMeeting } from '../../repositories/meetings.ts';
import type { Person } from '../../repositories/people.ts';
import { sendingsWaiting } from '../../repositories/sendings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import {
  type Acting,
  type ItemChange,
  type ItemToWrite,
  MOST_ITEMS_IN_CALENDAR,
  noRoomFor,
  seriesOf,
  writeItems,
} from '../deciding/index.ts';
import { attendeesOf, fieldsFromCopy, matterOf, storedTime } from './shape.ts';

/** Writes what a meeting's messages say of items. */
const say = (ctx: Acting, calendar: Calendar, items: readonly ItemToWrite[]): readonly ItemChange[] =>
  writeItems(ctx, calendar, 'item.said', items).changes;

/**
 * Puts on the organiser's item who was asked and what they answered. Its version stays: nobody who is changing the item has changed
 * any of this, and what they are doing goes on.
 */
export function projectForOrganiser(ctx: Acting, calendar: Calendar, owner: Person, called: OrganiserMeeting): void {
  const before = called.itemId === null ? null : itemById(ctx.db, called.itemId);
  if (!before || !called.state) return;
  const isSent = called.state.state !== 'draft';
  const after: StoredItem = {
    ...before,
    organiser: isSent ? { name: owner.name, address: owner.address } : null,
    attendees: isSent ? attendeesOf(called.state) : [],
    ownerAnswer: null,
    ownerInvited: false,
    sequence: Math.max(before.sequence, called.state.sequence),
  };
  if (JSON.stringify(before) === JSON.stringify(after)) return;
  say(ctx, calendar, [{ before, after }]);
}

/**
 * Puts into the calendar of somebody asked what they were asked to: a new item, or what changed of the one there. What is their own of
 * it stays: who sees it, how it stands in their week, what they noted. Only where its organiser calls it private from now on is it private
 * here too: `was` is what was held of it before.
 */
export function projectForAttendee(
  ctx: Acting,
  calendar: Calendar,
  owner: Person,
  invitation: AttendeeMeeting,
  organiserName: string | null,
  was: Copy | null = invitation.state,
): AttendeeMeeting {
  const { db } = ctx;
  const copy = invitation.state;
  const standing = invitation.itemId === null ? null : itemById(db, invitation.itemId);
  const before = standing?.removedAt === null ? standing : null;
  // What its owner took out of their calendar stays out, until it is asked for anew.
  if (standing && !before && (copy.said.method === 'CANCEL' || !isNews(copy, standing))) return invitation;
  if (!copy.on) return leftOut(ctx, calendar, invitation);
  const time = storedTime(copy.on.time);
  if (!time) return invitation;
  const own = fieldsFromCopy(copy, organiserName ?? before?.organiser?.name ?? null);
  const pending = before ? answerWaiting(db, invitation.id) : null;
  const said = {
    ...own,
    ...(pending ? { ownerAnswer: pending } : {}),
    ...time,
    ...copy.on.matter,
    ...(before && copy.on.classification !== was?.on?.classification
      ? { visibility: narrowest(before.visibility, copy.on.classification) }
      : {}),
  };
  if (before) {
    const same = JSON.stringify(before) === JSON.stringify({ ...before, ...said });
    if (same) return invitation;
    // An answer alone changes nothing that anybody may be typing at.
    const content = JSON.stringify(contentOf(before)) !== JSON.stringify(contentOf({ ...before, ...said }));
    const after = { ...before, ...said, version: before.version + Number(content) };
    say(ctx, calendar, [{ before, after }]);
    return invitation;
  }
  const all = itemsByUid(db, calendar.id, invitation.uid);
  // An item of the owner's own that happens to have the same UID stays as it is, and a full calendar takes no more.
  if (all.some((one) => one.recurrence === invitation.recurrence) || isFull(db, calendar, said)) return invitation;
  const series = invitation.recurrence === null ? null : (all.find((i) => i.recurrence === null) ?? null);
  const author = { by: owner.id, for: owner.id, at: ctx.now };
  const fresh: Omit<StoredItem, 'id'> = {
    ...MADE_HERE,
    ...freshFields(said.title),
    ...said,
    key: newKey(),
    calendarId: calendar.id,
    uid: invitation.uid,
    seriesId: series?.id ?? null,
    recurrence: invitation.recurrence,
    shows: series?.shows ?? 'busy',
    visibility: narrowest(series?.visibility ?? 'follow', copy.on.classification),
    version: 1,
    createdBy: author.by,
    createdFor: author.for,
    createdAt: author.at,
    changedBy: author.by,
    changedFor: author.for,
    changedAt: author.at,
    removedAt: null,
  };
  const item = (say(ctx, calendar, [{ before: null, after: fresh }])[0] as ItemChange).after;
  // Occurrences that came before their series belong to it from now on.
  const early =
    invitation.recurrence === null ? all.filter((one) => one.recurrence !== null && one.seriesId === null) : [];
  const joined = early.map((before) => ({ before, after: { ...before, seriesId: item.id } }));
  say(ctx, calendar, joined);
  const held = { ...invitation, itemId: item.id };
  updateMeeting(db, held, ctx.now);
  return held;
}

/** Who may see a copy at most, where its organiser classifies the meeting. */
function narrowest(own: Visibility, by: Classification | undefined): Visibility {
  if (own === 'private' || by === 'private') return 'private';
  return by === 'confidential' ? 'outline' : own;
}

/** Whether a calendar has no room for something that comes from others, which is then read among the messages alone. */
function isFull(db: Connection, calendar: Calendar, said: Parameters<typeof seriesOf>[0]): boolean {
  if (countItems(db, calendar.id) >= MOST_ITEMS_IN_CALENDAR) return true;
  return noRoomFor(db, calendar, seriesOf(said, [])) !== null;
}

/** What of a copy its organiser says: nobody's typing at it goes on once that is another. */
const contentOf = (item: StoredItem) => {
  const { start, end, allDay, zone, rule, added, left, cancelled } = item;
  return [pick(item, SAID_FIELDS), start, end, allDay, zone, rule, added, left, cancelled];
};

/** Whether what the organiser says is newer than what stood when the item was taken out. */
const isNews = (copy: Copy, item: StoredItem): boolean => copy.said.sequence > item.sequence;

/** An occurrence that is called off and never was an item of its own is left out of its series. */
function leftOut(ctx: Acting, calendar: Calendar, invitation: AttendeeMeeting): AttendeeMeeting {
  if (invitation.recurrence === null) return invitation;
  const series = itemsByUid(ctx.db, calendar.id, invitation.uid).find((i) => i.recurrence === null);
  if (!series || series.left.includes(invitation.recurrence)) return invitation;
  const after = { ...series, left: [...series.left, invitation.recurrence], version: series.version + 1 };
  say(ctx, calendar, [{ before: series, after }]);
  return invitation;
}

/** What the owner's people answered that hasn't left yet. */
function answerWaiting(db: Connection, meetingId: number): StoredItem['ownerAnswer'] {
  const waiting = sendingsWaiting(db, meetingId).findLast((s) => s.act === 'answer');
  return waiting?.act === 'answer' ? waiting.body.answer : null;
}

/** What somebody's copy of a meeting is, where only its item is there: one that a file brought in. */
export function copyFromItem(item: StoredItem, me: Person, time: Meeting['time'], invited: Meeting['invited']): Copy {
  const revision = { sequence: item.sequence, stamp: 0 };
  const mine = item.ownerAnswer;
  return {
    uid: item.uid,
    recurrence: item.recurrence,
    organiser: item.organiser?.address ?? '',
    me: item.attendees.find((a) => sameAddress(a.address, me.address))?.address ?? me.address,
    said: { method: item.cancelled ? 'CANCEL' : 'REQUEST', ...revision },
    on: {
      revision,
      time,
      matter: matterOf(item),
      invited: invited.map((one) => ({
        ...one,
        answer: item.attendees.find((a) => a.address === one.address)?.answer ?? 'needs-action',
      })),
    },
    times: [{ ...revision, time }],
    mine: mine === null || mine === 'needs-action' ? null : { answer: mine, comment: null, sentBy: null, ...revision },
    proposed: null,
    claims: [],
  };
}
