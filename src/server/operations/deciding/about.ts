import type { ItemWire } from '@/contract/items.ts';
import { dateText, instantText } from '@/core/time/index.ts';
import type { Connection } from '../../db/index.ts';
import { itemsByUid } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import type { Context } from './context.ts';
import { isRefusal } from './deciding.ts';
import { type FoundItem, findItem } from './find-item.ts';
import { happeningAt } from './indexing.ts';

/** Which item, or which happening of a series, is asked about: its copies in people's calendars take none of their time. */
export type About = Pick<FoundItem, 'item' | 'happening'> | null;

/** What is asked about by its id; `null` for nothing, and for what the one who asks doesn't see in full. */
export function aboutItem(ctx: Context, id: string | null): About {
  const found = id === null ? null : findItem(ctx, id);
  return found && !isRefusal(found) ? found : null;
}

/**
 * Views without the copy of what is asked about that stands in their calendar: one of them, and of several at the same hours the copy itself,
 * as far as that can be told from how they are seen.
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
  const itself = at.find((i) => views[i]?.id.split('~')[0] === copy.key) ?? at[0];
  return itself === undefined ? views : views.filter((_, i) => i !== itself);
}

function copyOf(db: Connection, calendarId: number, { item, happening }: NonNullable<About>) {
  const all = itemsByUid(db, calendarId, item.uid);
  const recurrence = happening?.recurrence ?? item.recurrence;
  const alone = all.find((one) => one.recurrence === recurrence);
  if (alone) return { key: alone.key, times: timesOf(alone, alone) };
  // There it goes its series' way still.
  const series = happening && all.find((one) => one.recurrence === null);
  const there = series && happeningAt(db, series, happening.start);
  return there ? { key: series.key, times: timesOf(series, there) } : null;
}

function timesOf({ allDay }: StoredItem, { start, end }: { start: number; end: number }): readonly [string, string] {
  const text = allDay ? dateText : instantText;
  return [text(start), text(end)];
}
