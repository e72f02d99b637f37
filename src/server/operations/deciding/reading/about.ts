import type { ItemWire } from '@/contract/items/items.ts';
import { sameAddress } from '@/core/meetings/index.ts';
import { dateText, instantText } from '@/core/time/index.ts';
import type { Connection } from '../../../db/index.ts';
import { itemsByUid } from '../../../repositories/items.ts';
import { meetingOfItem, type StoredMeeting } from '../../../repositories/meetings.ts';
import type { StoredItem } from '../../../repositories/stored-item.ts';
import { isRefusal } from '../access/deciding.ts';
import { type FoundItem, findItem } from '../access/find-item.ts';
import type { Context } from '../context/context.ts';
import { occurrenceAt } from '../writing/indexing.ts';

/** The item (or occurrence of a series) that is asked about. Its copies in other calendars must not count as taken time. */
export type About = Pick<FoundItem, 'item' | 'occurrence'> | null;

/** What is asked about by its id; `null` for nothing, and for what the viewer doesn't see in full. */
export function aboutItem(ctx: Context, id: string | null): About {
  const found = id === null ? null : findItem(ctx, id);
  return found && !isRefusal(found) ? found : null;
}

/**
 * Leaves out of some views the calendar's own copy of the item that is asked about. A shared UID alone proves nothing, since anybody can
 * write an item with any UID. The copy is the view that the asker sees in full under its own id; or, where less is seen, the one at the
 * same hours whose calendar's owner is an attendee of the very meeting that is asked about.
 */
export function withoutCopy<V extends ItemWire>(
  db: Connection,
  calendarId: number,
  about: About,
  views: readonly V[],
): readonly V[] {
  const copy = about && copyOf(db, calendarId, about);
  if (!copy) return views;
  const [start, end] = copy.times;
  const at = views.flatMap((view, i) => (view.start === start && view.end === end ? [i] : []));
  const seen = at.find((i) => views[i]?.id.split('~')[0] === copy.item.key);
  const itself = seen ?? (isInvitedTo(db, copy.item, about.item) ? at[0] : undefined);
  return itself === undefined ? views : views.filter((_, i) => i !== itself);
}

function copyOf(db: Connection, calendarId: number, { item, occurrence }: NonNullable<About>) {
  const all = itemsByUid(db, calendarId, item.uid);
  const recurrence = occurrence?.recurrence ?? item.recurrence;
  const alone = all.find((one) => one.recurrence === recurrence);
  if (alone) return { item: alone, times: timesOf(alone, alone) };
  // There it goes its series' way still.
  const series = occurrence && all.find((one) => one.recurrence === null);
  const there = series && occurrenceAt(db, series, occurrence.start);
  return there ? { item: series, times: timesOf(series, there) } : null;
}

/** Whether an item is the copy of a meeting in an attendee's calendar: both the meeting and the copy say so. */
function isInvitedTo(db: Connection, copy: StoredItem, called: StoredItem): boolean {
  const held = meetingOf(db, copy);
  const meeting = meetingOf(db, called);
  if (held?.part !== 'attendee' || meeting?.part !== 'organiser' || !meeting.state) return false;
  const { organiser, invited } = meeting.state;
  return sameAddress(held.state.organiser, organiser) && invited.some((one) => sameAddress(one.address, held.state.me));
}

/** The meeting of an item; of an occurrence that has none of its own, that of its series. */
const meetingOf = (db: Connection, item: StoredItem): StoredMeeting | null =>
  meetingOfItem(db, item.id) ?? (item.seriesId === null ? null : meetingOfItem(db, item.seriesId));

function timesOf({ allDay }: StoredItem, { start, end }: { start: number; end: number }): readonly [string, string] {
  const text = allDay ? dateText : instantText;
  return [text(start), text(end)];
}
