import { copyOfOccurrence, type Message, meetingOfOccurrence } from '@/core/meetings/index.ts';
import type { Connection } from '../../db/index.ts';
import { type Calendar, calendarById, calendarsOf } from '../../repositories/calendars.ts';
import { itemById, itemsByUid } from '../../repositories/items.ts';
import {
  type AttendeeMeeting,
  insertMeeting,
  meetingByUid,
  meetingOfItem,
  type OrganiserMeeting,
} from '../../repositories/meetings.ts';
import type { Person } from '../../repositories/people.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { type Acting, Directory, occurrenceAt } from '../deciding/index.ts';
import { apart } from './apart.ts';
import { calledOf, occurrenceFor } from './plan.ts';
import { copyFromItem } from './project.ts';
import { invitedFrom, timeOf, timeOfOccurrence } from './shape.ts';

/** The meeting of a person's own that a message speaks of, in whichever of their calendars it is. */
export function calledBy(
  db: Connection,
  me: Person,
  message: Message,
): { calendar: Calendar; called: OrganiserMeeting } | null {
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
export function invitedByFile(
  db: Connection,
  calendar: Calendar,
  me: Person,
  message: Pick<Message, 'uid' | 'recurrence'>,
): AttendeeMeeting | null {
  const all = itemsByUid(db, calendar.id, message.uid);
  const item = all.find((i) => i.recurrence === message.recurrence);
  if (!item) return null;
  const known = meetingOfItem(db, item.id);
  if (known) return known.part === 'attendee' ? known : null;
  if (!item.ownerInvited || !item.organiser) return null;
  const state = copyFromItem(item, me, timeOf(new Directory(db), item), invitedFrom(item.attendees));
  const held = { calendarId: calendar.id, itemId: item.id, uid: item.uid, recurrence: item.recurrence };
  return insertMeeting(db, { ...held, part: 'attendee', state }, 0) as AttendeeMeeting;
}

/** A message about one occurrence of a series makes that occurrence a meeting of its own. */
export function ofOccurrence(ctx: Acting, called: OrganiserMeeting, message: Message): OrganiserMeeting {
  if (message.recurrence === null || called.recurrence !== null || !called.state) return called;
  const series = called.itemId === null ? null : itemById(ctx.db, called.itemId);
  if (!series) return called;
  const calendar = calendarById(ctx.db, called.calendarId);
  const occurrence = { ...occurrenceFor(series, message.recurrence), recurrence: message.recurrence };
  // No occurrence begins then: the series stays what the message is about.
  if (!calendar || !occurrenceAt(ctx.db, series, occurrence.start)) return called;
  const time = timeOfOccurrence(new Directory(ctx.db), series, occurrence);
  const state = meetingOfOccurrence(called.state, message.recurrence, time);
  const itemId = apart(ctx, calendar, series, occurrence).id;
  const held = { calendarId: called.calendarId, itemId, uid: called.uid, recurrence: message.recurrence };
  return insertMeeting(ctx.db, { ...held, part: 'organiser', state, wanted: null }, ctx.now) as OrganiserMeeting;
}

/** Makes one occurrence of a series a meeting of its own for somebody who was asked to the series and answers that one alone. */
export function invitationToOccurrence(
  ctx: Acting,
  invitation: AttendeeMeeting,
  item: Pick<StoredItem, 'id'>,
  recurrence: string,
): AttendeeMeeting {
  const series = itemById(ctx.db, invitation.itemId ?? -1);
  if (!series) return invitation;
  const time = timeOfOccurrence(new Directory(ctx.db), series, occurrenceFor(series, recurrence));
  const state = copyOfOccurrence(invitation.state, recurrence, time);
  const held = { calendarId: invitation.calendarId, itemId: item.id, uid: invitation.uid, recurrence };
  return insertMeeting(ctx.db, { ...held, part: 'attendee', state }, ctx.now) as AttendeeMeeting;
}
