import { takesTime } from '@/core/calendar/index.ts';
import { expand } from '@/core/recurrence/index.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import { itemById } from '../../repositories/items.ts';
import type { AttendeeMeeting } from '../../repositories/meetings.ts';
import type { Person } from '../../repositories/people.ts';
import { type Acting, Directory, decideOn, rangeOf, repeats, seriesOf, viewsIn } from '../deciding/index.ts';

/** Occurrences of a series for which a room is looked at, and how far ahead. */
const MOST_OCCURRENCES = 200;
const AHEAD = 366 * 86_400_000;

/** Whether a room or a thing is free whenever a meeting it is asked to takes place: nothing else there blocks any of it. */
export function roomIsFree(ctx: Acting, calendar: Calendar, room: Person, invitation: AttendeeMeeting): boolean {
  const { db } = ctx;
  const item = invitation.itemId === null ? null : itemById(db, invitation.itemId);
  if (!item || item.removedAt !== null) return true;
  const from = Math.max(item.start, ctx.now);
  const occurrences = repeats(item)
    ? expand(seriesOf(item, []), from, from + AHEAD, MOST_OCCURRENCES).occurrences
    : [{ start: item.start, end: item.end }];
  const decided = decideOn({ ...ctx, viewer: room }, calendar);
  const directory = new Directory(db);
  return occurrences.every(({ start, end }) => {
    const range = rangeOf({ start, end, allDay: item.allDay }, calendar.zone);
    return viewsIn(db, directory, calendar, range, { person: room, decision: decided.decision }).every((view) => {
      const own = view.id === item.key || view.id.startsWith(`${item.key}~`);
      const there = view.allDay || (Date.parse(view.start) < range.to && Date.parse(view.end) > range.from);
      return own || !there || !takesTime(view);
    });
  });
}
