import {
  type Cover,
  callMeeting,
  callOff,
  changeMeeting,
  type Invited,
  leaveOut,
  type Meeting,
  type Message,
  meetingOfOccurrence,
  type Origin,
  type Outcome,
  saidOf,
  sameAddress,
} from '@/core/meetings/index.ts';
import { fromWallLenient, parseDate, parseWall } from '@/core/time/index.ts';
import type { Connection } from '../../db/index.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import { itemById } from '../../repositories/items.ts';
import {
  insertMeeting,
  meetingByUid,
  meetingOfItem,
  meetingsByUid,
  type OrganiserMeeting,
} from '../../repositories/meetings.ts';
import type { Person } from '../../repositories/people.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { Directory } from '../deciding/index.ts';
import { invitedFrom, matterOf, timeOf, timeOfOccurrence } from './shape.ts';

/** Who acts and when, so that what is said later is also newer by the second, which is as fine as a message says it. */
export function originOf(owner: Person, actor: Person, now: number, last: number): Origin {
  const second = Math.floor(now / 1000) * 1000;
  return { sentBy: actor.id === owner.id ? null : actor.address, stamp: Math.max(second, last + 1000) };
}

/**
 * A meeting that the owner calls, as it stands beside its item; made where the item came with people (a file's), or stands for one
 * occurrence of a called series. `null` for what is nobody's meeting but the owner's own. Call it before the item is changed.
 */
export function calledOf(db: Connection, owner: Person, item: StoredItem, now: number): OrganiserMeeting | null {
  const known = meetingOfItem(db, item.id);
  if (known) return known.part === 'organiser' ? known : null;
  const held = { calendarId: item.calendarId, itemId: item.id, uid: item.uid, recurrence: item.recurrence };
  if (item.seriesId !== null) {
    const series = itemById(db, item.seriesId);
    const called = series && calledOf(db, owner, series, now);
    if (!series || !called) return null;
    const time = timeOfOccurrence(new Directory(db), series, occurrenceFor(series, item.recurrence as string));
    const state = called.state && meetingOfOccurrence(called.state, item.recurrence as string, time);
    // What was heard of it already stands beside the item from now on.
    const before = meetingByUid(db, item.calendarId, item.uid, item.recurrence);
    if (before) return before.part === 'organiser' ? before : null;
    return insertMeeting(
      db,
      { ...held, part: 'organiser', state, wanted: called.wanted, cover: called.cover ?? null },
      now,
    ) as OrganiserMeeting;
  }
  const file = fromFile(db, owner, item);
  return file && (insertMeeting(db, file, now) as OrganiserMeeting);
}

/** A meeting of the owner's that a file brought in, as it would be held. */
export function fromFile(db: Connection, owner: Person, item: StoredItem): Omit<OrganiserMeeting, 'id'> | null {
  const callsIt = item.organiser?.address.toLowerCase() === owner.address.toLowerCase();
  if (!callsIt || item.attendees.length === 0) return null;
  const others = item.attendees.filter((a) => !sameAddress(a.address, owner.address));
  const given = Object.fromEntries(
    others
      .filter((a) => a.answer !== 'needs-action')
      .map((a) => {
        const said = { answer: a.answer, comment: null, sentBy: a.by ?? null, sequence: item.sequence, stamp: 0 };
        return [a.address.toLowerCase(), said] as const;
      }),
  );
  const state: Meeting = {
    uid: item.uid,
    recurrence: item.recurrence,
    organiser: owner.address,
    state: item.cancelled ? 'cancelled' : 'sent',
    time: timeOf(new Directory(db), item),
    matter: matterOf(item),
    invited: invitedFrom(others),
    sequence: item.sequence,
    stamp: item.changedAt,
    timeSince: 0,
    given,
    counters: [],
    questions: [],
  };
  const { calendarId, id: itemId, uid, recurrence } = item;
  return { calendarId, itemId, uid, recurrence, part: 'organiser', state, wanted: null };
}

/** When the occurrence of a series with a given name is. */
export function occurrenceFor(series: StoredItem, recurrence: string): { start: number; end: number } {
  const wall = series.allDay ? parseDate(recurrence.slice(0, 10)) : parseWall(recurrence);
  const start = wall === null ? series.start : series.allDay ? wall : fromWallLenient(series.zone, wall);
  return { start, end: start + (series.end - series.start) };
}

/** A meeting nobody was told of yet. */
const draftOf = (
  db: Connection,
  owner: Person,
  item: StoredItem,
  invited: readonly Invited[],
  cover: Cover | null,
): Meeting => ({
  uid: item.uid,
  recurrence: item.recurrence,
  organiser: owner.address,
  state: 'draft',
  time: timeOf(new Directory(db), item),
  matter: saidOf(matterOf(item), cover),
  invited,
  sequence: 0,
  stamp: 0,
  timeSince: 0,
  given: {},
  counters: [],
  questions: [],
});

/**
 * The messages that bring everybody from what they know of a meeting to what its item says now, and the meeting after them; none where
 * nothing differs. Computes only, writes nothing.
 */
export function plan(
  db: Connection,
  calendar: Calendar,
  owner: Person,
  called: OrganiserMeeting,
  item: StoredItem,
  tellAll: boolean,
  origin: Origin,
): Outcome {
  const invited = called.wanted ?? called.state?.invited ?? [];
  const cover = called.cover ?? null;
  if (item.removedAt !== null)
    return called.state
      ? callOff(called.state, origin)
      : { meeting: draftOf(db, owner, item, invited, cover), messages: [] };
  if (called.state?.state === 'sent')
    return changed(db, calendar, called, called.state, item, invited, tellAll, origin);
  const given = called.state?.state === 'draft' ? called.state.given : {};
  const draft = { ...draftOf(db, owner, item, invited, cover), given };
  if (invited.length === 0) return { meeting: draft, messages: [] };
  // What was called off and is on again is asked afresh, as something newer.
  const sequence = called.state?.state === 'cancelled' ? called.state.sequence + 1 : 0;
  const questions = called.state?.questions ?? [];
  return callMeeting({ ...draft, sequence, timeSince: sequence, questions }, origin);
}

function changed(
  db: Connection,
  calendar: Calendar,
  called: OrganiserMeeting,
  state: Meeting,
  item: StoredItem,
  invited: readonly Invited[],
  tellAll: boolean,
  origin: Origin,
): Outcome {
  const time = timeOf(new Directory(db), item);
  let meeting = state;
  const messages: Message[] = [];
  const gone = time.left.filter((text) => !state.time.left.includes(text));
  if (gone.length > 0) {
    // An occurrence that is a meeting of its own is called off as that.
    const apart = new Set(meetingsByUid(db, calendar.id, called.uid).flatMap((m) => m.recurrence ?? []));
    for (const text of gone) {
      if (apart.has(text)) {
        meeting = { ...meeting, time: { ...meeting.time, left: [...meeting.time.left, text] } };
        continue;
      }
      const out = leaveOut(meeting, text, origin);
      meeting = out.meeting;
      messages.push(...out.messages);
    }
    const order = (texts: readonly string[]) => (texts.length === time.left.length ? time.left : texts);
    meeting = { ...meeting, time: { ...meeting.time, left: order(meeting.time.left) } };
  }
  const next = changeMeeting(
    meeting,
    { time, matter: saidOf(matterOf(item), called.cover ?? null), invited, tellAll },
    origin,
  );
  return { meeting: next.meeting, messages: [...messages, ...next.messages] };
}
