import { calendarById } from '../../repositories/calendars.ts';
import { itemById, MADE_HERE } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { reopenSuggestion } from '../../repositories/suggestions.ts';
import { itemStates, trailByKey } from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type Context,
  type Decided,
  Directory,
  decideOn,
  type ItemsWritten,
  mayOn,
  writeItems,
} from '../deciding/index.ts';

const UNDO_FOR = 15 * 60_000;
/** How long the owner may take back what was written on their calendar, whoever wrote it. */
const OWNER_UNDOES_FOR = 30 * 24 * 60 * 60_000;
/** What a message of somebody else's changed stands until they say otherwise. */
const TOLD_BY_OTHERS: ReadonlySet<string> = new Set(['item.said', 'item.answered']);
const NO_STATES = { before: [], after: [] };

/**
 * Takes back one write: one's own for a quarter of an hour, and on one's own calendar anybody's for thirty days. The fields it touched are as
 * before. Refused once someone built on it, and for whoever may no longer, at this instant, do to each item what taking it back does.
 */
export function undo(ctx: Context, key: string): Result<ItemsWritten> {
  const entry = trailByKey(ctx.db, key);
  const { before, after } = entry ? itemStates(entry) : NO_STATES;
  if (!entry || entry.collectionId === null || after.length === 0) return refuse('notFound');
  const calendar = calendarById(ctx.db, entry.collectionId);
  const owns = calendar?.ownerId === ctx.viewer.id && !TOLD_BY_OTHERS.has(entry.verb);
  if (!calendar || (entry.actorId !== ctx.viewer.id && !owns)) return refuse('notFound');
  if (ctx.now - entry.at > (owns ? OWNER_UNDOES_FOR : UNDO_FOR)) return refuse('notFound');
  const decided = decideOn(ctx, calendar);
  if (decided.decision.rights.sight === 'nothing') return refuse('notFound');
  const now = after.map((item) => itemById(ctx.db, item.id));
  if (now.some((item, i) => !isAsLeft(item, after[i]))) return refuse('changedMeanwhile');
  const may = after.every((item, i) => mayTakeBack(ctx, decided, before[i] ?? null, item));
  if (!may) return refuse('mayNotChange', { facts: { name: new Directory(ctx.db).name(calendar.ownerId) } });
  return ctx.db.write(() => {
    const items = (now as StoredItem[]).map((current, i) => {
      const was = before[i];
      const back: StoredItem = {
        ...MADE_HERE,
        ...(was ?? { ...current, removedAt: ctx.now }),
        ...authorship(ctx, calendar),
        // Who is asked, and what they answered, comes from messages alone and is no part of a write.
        organiser: current.organiser,
        attendees: current.attendees,
        ownerAnswer: current.ownerAnswer,
        ownerInvited: current.ownerInvited,
        id: current.id,
        version: current.version + 1,
        sequence: current.sequence + 1,
      };
      return { before: current, after: back };
    });
    reopenSuggestion(ctx.db, key);
    const written = writeItems(ctx, calendar, 'item.undone', items);
    const first = written.changes[0]?.after;
    return ok({ ...written, decided, item: first && first.removedAt === null ? first : null });
  });
}

/**
 * Whether an item still is as a write left it: nothing was written since, or everything since has been undone, so that several steps can be
 * undone one after the other.
 */
function isAsLeft(now: StoredItem | null, left: StoredItem | undefined): boolean {
  if (!now || !left) return false;
  const bare = (item: StoredItem) => ({
    ...MADE_HERE,
    ...item,
    version: 0,
    sequence: 0,
    changedBy: 0,
    changedFor: 0,
    changedAt: 0,
    organiser: null,
    attendees: [],
    ownerAnswer: null,
    ownerInvited: false,
  });
  return now.version === left.version || JSON.stringify(sorted(bare(now))) === JSON.stringify(sorted(bare(left)));
}

const sorted = (item: object) => Object.fromEntries(Object.entries(item).sort(([a], [b]) => (a < b ? -1 : 1)));

/** Whether the viewer may, now, take an item back from what it is to what it was. */
function mayTakeBack(ctx: Context, { decision }: Decided, was: StoredItem | null, is: StoredItem): boolean {
  const on = (item: StoredItem) => mayOn(ctx, decision, { ...item, removedAt: null });
  if (was === null) return on(is).remove || on(is).change;
  if (is.removedAt !== null && was.removedAt === null) return on(was).remove || on(was).change;
  if (on(is).change) return true;
  // Its writer made it private and so lost sight of it; this they may still undo.
  const hidByThis = was.visibility !== 'private' && is.visibility === 'private';
  // A date left out of a series is a removal of one of its occurrences.
  const leftOut = is.left.length > was.left.length;
  return (hidByThis && on(was).change) || (leftOut && on(is).remove);
}
