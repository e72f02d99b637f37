import { calendarText, freeBusyLines } from '@/core/formats/index.ts';
import { instantText } from '@/core/time/index.ts';
import { ok, type Result } from '../../result.ts';
import {
  type Context,
  type Decided,
  Directory,
  findCalendar,
  isRefusal,
  noteUse,
  readViews,
  takenIn,
} from '../deciding/index.ts';
import { bounded, daysOf } from './instants.ts';
import type { Instants } from './program-object.ts';

/** When the owner of a calendar is taken between two instants, as far as the viewer sees it, as lines of a VFREEBUSY. */
export function freeBusyOf(ctx: Context, { calendar, decision }: Decided, instants: Instants, uid: string): string[] {
  const range = daysOf(bounded(instants, ctx.now), calendar.zone);
  const looker = { person: ctx.viewer, decision };
  const { items, more } = readViews(ctx.db, new Directory(ctx.db), calendar, range, looker);
  const taken = takenIn(items, calendar.zone);
  // Where there is more than is read it ends with what was read: no time it speaks of looks free that isn't.
  const to = more === null ? range.to : Math.max(range.from, taken.at(-1)?.span[0] ?? range.from);
  return freeBusyLines(taken, [range.from, to], instantText(ctx.now), uid);
}

/** The free-busy-query of RFC 4791 7.10 on one calendar. */
export function queryFreeBusy(ctx: Context, key: string, instants: Instants): Result<string> {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  noteUse(ctx, decided.decision);
  return ok(calendarText(freeBusyOf(ctx, decided, instants, `${key}-free-busy@paramo`), {}));
}
