import { isTaken } from '@/core/calendar/index.ts';
import { fromWallLenient } from '@/core/time/index.ts';
import type { Connection } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import { type Calendar, calendarById } from '../../repositories/calendars.ts';
import { itemById } from '../../repositories/items.ts';
import { occurrenceKeysIn } from '../../repositories/occurrences.ts';
import { insertOutgoing } from '../../repositories/outbox.ts';
import { personById } from '../../repositories/people.ts';
import {
  forgetReminded,
  insertReminded,
  type Reminder,
  remindersOn,
  reminderTimes,
} from '../../repositories/reminders.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { Directory, decideOn, tellPeople, viewFor } from '../deciding/index.ts';
import { mayBeReminded } from './wishes.ts';

const MINUTE = 60_000;
/** How late somebody is still reminded, where the program wasn't running at the time. */
const LATE = 10 * MINUTE;
const DAY = 86_400_000;
/** Calendars looked at in one go, and occurrences of one of them. */
const A_SLICE = 100;
const MOST = 200;

/**
 * Reminds everybody of what is about to happen, each once, as far as they still see it and still act there: in their open windows, and
 * by mail where they wish. Call it every so often; what came due in the last ten minutes is caught up with. A few calendars at a time, so
 * that nobody waits. Answers how many were reminded.
 */
export async function remindDue(db: Connection, now: number, others: () => Promise<void>): Promise<number> {
  let reminded = 0;
  let after: readonly [number, number] = [0, -1];
  for (;;) {
    const times = reminderTimes(db, after, A_SLICE);
    for (const [calendarId, minutes] of times) reminded += remindOf(db, now, calendarId, minutes);
    const last = times.at(-1);
    if (times.length < A_SLICE || !last) break;
    after = last;
    await others();
  }
  db.write(() => forgetReminded(db, now - 7 * DAY));
  return reminded;
}

function remindOf(db: Connection, now: number, calendarId: number, minutes: number): number {
  const calendar = calendarById(db, calendarId);
  if (!calendar) return 0;
  const to = now + minutes * MINUTE;
  const from = to - LATE;
  // What is by date begins where its calendar's day does, up to fourteen hours from the date's own beginning.
  const near = occurrenceKeysIn(db, calendarId, from, to + 1, MOST);
  const due = near.flatMap(([at, , itemId]) => {
    const item = itemById(db, itemId);
    if (!item || item.removedAt !== null || item.cancelled || item.ownerAnswer === 'declined') return [];
    const begins = beginsAt(db, calendar, item, at);
    return begins > from && begins <= to && begins > now - LATE ? [{ item, at }] : [];
  });
  if (due.length === 0) return 0;
  const wishes = remindersOn(
    db,
    calendarId,
    due.flatMap(({ item }) => (item.seriesId === null ? [item.id] : [item.id, item.seriesId])),
  );
  const people = [...new Set(wishes.map((w) => w.personId))];
  return db.write(() => {
    let reminded = 0;
    for (const { item, at } of due)
      for (const personId of people) {
        const wish = wishOf(wishes, personId, item);
        if (wish?.minutes !== minutes || !remind(db, now, calendar, item, at, wish)) continue;
        reminded++;
      }
    return reminded;
  });
}

/** When an occurrence begins, as an instant. */
function beginsAt(db: Connection, calendar: Calendar, item: StoredItem, at: number): number {
  return item.allDay ? fromWallLenient(new Directory(db).zone(calendar.zone), at) : at;
}

/** Which wish holds for an item: its own, that of the series it stands in, or that for everything that takes time. */
function wishOf(wishes: readonly Reminder[], personId: number, item: StoredItem): Reminder | undefined {
  const of = (itemId: number | null) => wishes.find((w) => w.personId === personId && w.itemId === itemId);
  const own = of(item.id) ?? (item.seriesId === null ? undefined : of(item.seriesId));
  return own ?? (item.allDay || !isTaken(item.shows) ? undefined : of(null));
}

function remind(
  db: Connection,
  now: number,
  calendar: Calendar,
  item: StoredItem,
  at: number,
  { personId, byMail }: Reminder,
): boolean {
  const viewer = personById(db, personId);
  if (!viewer || viewer.leftAt !== null) return false;
  const ctx = { db, now, viewer };
  const decided = decideOn(ctx, calendar);
  if (!mayBeReminded(decided)) return false;
  const view = viewFor(ctx, decided, item, { start: at, end: at + (item.end - item.start) });
  if (!view || !('notes' in view)) return false;
  const key = newKey();
  if (!insertReminded(db, { key, personId, itemId: item.id, start: at }, now)) return false;
  if (byMail)
    insertOutgoing(db, {
      key: newKey(),
      at: now,
      personId,
      kind: 'reminder',
      collectionId: calendar.id,
      grantId: null,
      byId: null,
      note: key,
    });
  tellPeople(db, [personId]);
  return true;
}
