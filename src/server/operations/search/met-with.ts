import type { ContactAroundAnswer } from '@/contract/contacts.ts';
import { dateText, toWall } from '@/core/time/index.ts';
import { candidatesFor } from '../../repositories/item-text.ts';
import { calendarsOnLanesOf } from '../../repositories/lanes.ts';
import { itemsAtNext, lastBefore } from '../../repositories/occurrences.ts';
import { type Context, Directory, viewOfRow } from '../deciding/index.ts';
import { Deciding } from './search.ts';
import { allWordsOf } from './words.ts';

/** Meetings that are answered, and items that are looked at for them. */
const MOST = 12;
const MOST_LOOKED_AT = 300;
const MOST_CALENDARS = 500;

/**
 * Meetings with whoever has one of some mail addresses, as far as the viewer sees who is in them: the nearest to now first, of a series its next
 * occurrence; and the day of the latest that is over.
 */
export function metWith(
  ctx: Context,
  addresses: readonly string[],
): Pick<ContactAroundAnswer, 'meetings' | 'lastMet' | 'cut'> {
  const wanted = new Set(addresses);
  const calendars = calendarsOnLanesOf(ctx.db, ctx.viewer.id, MOST_CALENDARS);
  const deciding = new Deciding(ctx);
  const directory = new Directory(ctx.db);
  const found = new Map<number, ContactAroundAnswer['meetings'][number] & { last: number | null }>();
  let looked = 0;
  for (const address of wanted) {
    const words = allWordsOf(address);
    if (words.length === 0) continue;
    const texts = [{ columns: ['people'] as const, calendars }];
    const candidates = candidatesFor(ctx.db, words, texts, ctx.now, MOST_LOOKED_AT);
    looked = Math.max(looked, candidates.length);
    deciding.on(candidates.map((one) => one.calendarId));
    const ids = candidates.filter((one) => deciding.sees(one.calendarId)).map((one) => one.id);
    for (const { calendarId, row } of itemsAtNext(ctx.db, ids, ctx.now)) {
      const on = deciding.sees(calendarId);
      const view = on && viewOfRow(ctx.db, directory, row, { person: ctx.viewer, decision: on.decision });
      if (!view || view.asSet?.cancelled === true) continue;
      const people = [view.organiser, ...(view.attendees ?? [])].flatMap((one) => (one ? [one.address] : []));
      const owner = directory.person(on.calendar.ownerId);
      if (!owner || !people.some((one) => wanted.has(one))) continue;
      const last = lastBefore(ctx.db, row.id, ctx.now);
      found.set(row.id, {
        item: view.id,
        title: view.title ?? null,
        start: view.start,
        end: view.end,
        allDay: view.allDay,
        owner: { handle: owner.handle, name: owner.name },
        calendar: on.calendar.key,
        main: on.calendar.main,
        last: last === null ? null : view.allDay ? last : toWall(ctx.viewer.zone, last),
      });
    }
  }
  const far = ({ start }: { readonly start: string }) => Math.abs(Date.parse(start) - ctx.now);
  const all = [...found.values()].toSorted((a, b) => far(a) - far(b));
  const over = all.flatMap(({ last }) => last ?? []);
  return {
    meetings: all.slice(0, MOST).map(({ last: _last, ...meeting }) => meeting),
    lastMet: over.length === 0 ? null : dateText(Math.max(...over)),
    cut: all.length > MOST || looked === MOST_LOOKED_AT,
  };
}
