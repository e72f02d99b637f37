import type { RemovedAnswer } from '@/contract/trail.ts';
import { instantText } from '@/core/time/index.ts';
import { calendarById } from '../../repositories/calendars.ts';
import { itemById, itemByKey, removedIn } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { itemStates, lastTrailOf } from '../../repositories/trail.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type Context,
  type Decided,
  Directory,
  decideOn,
  findCalendar,
  type ItemsWritten,
  isRefusal,
  mayOn,
  noRoomFor,
  seriesOf,
  viewFor,
  writeItems,
} from '../deciding/index.ts';
import { noRoom } from './create-item.ts';

const THIRTY_DAYS = 30 * 86_400_000;
const MOST = 200;

/** What was removed from a calendar in the last thirty days, the latest first: what the viewer sees in full and may bring back. */
export function listRemoved(ctx: Context, key: string): Result<RemovedAnswer> {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const directory = new Directory(ctx.db);
  const all = removedIn(ctx.db, decided.calendar.id, ctx.now - THIRTY_DAYS, MOST + 1);
  const removed = all.slice(0, MOST).flatMap((item) => {
    const view = viewOfRemoved(ctx, decided, item, directory);
    if (!view) return [];
    return [{ at: instantText(item.removedAt ?? 0), by: directory.name(item.changedBy), item: view }];
  });
  return ok({ removed, cut: all.length > MOST });
}

/** A removed item as the viewer would see it, where they may bring it back. */
function viewOfRemoved(ctx: Context, decided: Decided, item: StoredItem, directory: Directory) {
  const back = { ...item, removedAt: null };
  const may = mayOn(ctx, decided.decision, back);
  if (!may.change && !may.remove) return null;
  const view = viewFor(ctx, decided, back, back, directory);
  return view && 'notes' in view ? view : null;
}

/** Brings back a removed item as it was, with what was removed in the same act, as far as one may. */
export function bringBack(ctx: Context, key: string): Result<ItemsWritten> {
  return ctx.db.write(() => {
    const item = itemByKey(ctx.db, key);
    const calendar = item && calendarById(ctx.db, item.calendarId);
    if (!item || !calendar || item.removedAt === null || item.removedAt < ctx.now - THIRTY_DAYS)
      return refuse('notFound');
    const decided = decideOn(ctx, calendar);
    if (!viewOfRemoved(ctx, decided, item, new Directory(ctx.db))) return refuse('notFound');
    const all = [item, ...withIt(ctx, decided, item)];
    const full: Refusal | null =
      noRoom(ctx, calendar, ctx.viewer.id, all.length) ?? noRoomFor(ctx.db, calendar, seriesOf(item, []));
    if (full) return full;
    const items = all.map((before) => {
      const own = authorship(ctx, calendar);
      // A hold that freed itself would be gone again at once: what is brought back stays until somebody frees it.
      const lapsesAt = before.lapsesAt !== null && before.lapsesAt <= ctx.now ? null : before.lapsesAt;
      const [version, sequence] = [before.version + 1, before.sequence + 1];
      const after = { ...before, ...own, removedAt: null, lapsesAt, version, sequence };
      return { before, after };
    });
    const written = writeItems(ctx, calendar, 'item.broughtBack', items);
    return ok({ ...written, decided, item: written.changes[0]?.after ?? null });
  });
}

/** What was removed together with an item: the occurrences of a series that stood by themselves. */
function withIt(ctx: Context, decided: Decided, item: StoredItem): StoredItem[] {
  const entry = lastTrailOf(ctx.db, item.key, 'item.removed');
  return (entry ? itemStates(entry).after : []).flatMap((one) => {
    const now = one.id === item.id ? null : itemById(ctx.db, one.id);
    if (!now || now.removedAt === null || now.calendarId !== item.calendarId || now.version !== one.version) return [];
    return mayOn(ctx, decided.decision, { ...now, removedAt: null }).remove ? [now] : [];
  });
}
