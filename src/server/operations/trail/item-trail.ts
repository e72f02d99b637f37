import type { ItemWire } from '@/contract/items/items.ts';
import type { TrailAnswer } from '@/contract/trail.ts';
import { mayRun } from '@/core/access/index.ts';
import { TOLD_FIELDS } from '@/core/calendar/index.ts';
import { instantText } from '@/core/time/index.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { itemStates, trailOf } from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, type Decided, Directory, findItem, isRefusal, viewFor } from '../deciding/index.ts';

const MOST = 100;
const UNDO_FOR = 15 * 60_000;
const LONGEST = 200;
/**
 * What happened to an item, the latest first: who, for whom, what, before and after. For its calendar's owner and whoever acts there; of what
 * it was before and is after each sees what they would see of it now, so a time when it was private says nothing to whom it was.
 */
export function readTrail(ctx: Context, id: string): Result<TrailAnswer> {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return found;
  const { decided, item } = found;
  if (!mayRun(decided.decision).run) return refuse('notFound');
  const directory = new Directory(ctx.db);
  const entries = trailOf(ctx.db, item.key, decided.calendar.id, MOST + 1);
  // Earlier states are followed back from the item as it is now. What was done beside the item is as private as the item was then.
  let state: StoredItem = item;
  return ok({
    entries: entries.slice(0, MOST).map((entry) => {
      const states = itemStates(entry);
      const at = states.after.findIndex((one) => one.id === item.id);
      const [before, after] = [states.before[at] ?? null, states.after[at] ?? null];
      const isFile = entry.verb.startsWith('file.');
      const then = state;
      if (before) state = before;
      return {
        key: entry.key,
        at: instantText(entry.at),
        actor: directory.name(entry.actorId),
        hands: entry.hands,
        principal: directory.name(entry.principalId),
        verb: entry.verb.replace(/^item\./, '').replace(/\.(.)/, (_, c: string) => c.toUpperCase()),
        changed: isFile
          ? !isRead(ctx, decided, then, directory)
            ? []
            : [{ field: 'file', before: textOf(entry.before), after: textOf(entry.after) }]
          : changedBetween(ctx, decided, before, after, directory),
        undo: entry.actorId === ctx.viewer.id && ctx.now - entry.at < UNDO_FOR && after?.version === item.version,
      };
    }),
    cut: entries.length > MOST,
  });
}

/** What is otherwise between two states of an item, by field, as the viewer would see both now. */
export function changedBetween(
  ctx: Context,
  decided: Decided,
  before: StoredItem | null,
  after: StoredItem | null,
  directory: Directory,
): TrailAnswer['entries'][number]['changed'] {
  const seen = (state: StoredItem | null) => state && seenAs(ctx, decided, state, directory);
  const [was, is] = [seen(before), seen(after)];
  if (!was || !is || !('notes' in was) || !('notes' in is)) return [];
  return TOLD_FIELDS.flatMap((field) => {
    const [a, b] = [textOf(was[field as keyof ItemWire]), textOf(is[field as keyof ItemWire])];
    return a === b ? [] : [{ field, before: a, after: b }];
  });
}

/** An item as it was, as the viewer would see it now. */
export const seenAs = (ctx: Context, decided: Decided, state: StoredItem, directory: Directory): ItemWire | null =>
  viewFor(ctx, decided, { ...state, removedAt: null }, state, directory);

function isRead(ctx: Context, decided: Decided, state: StoredItem, directory: Directory): boolean {
  const view = seenAs(ctx, decided, state, directory);
  return view !== null && 'notes' in view;
}

/** A value as it is told in the trail; `null` where there is none. */
export function textOf(value: unknown): string | null {
  if (value === null || value === undefined || value === '') return null;
  if (Array.isArray(value)) return value.length === 0 ? null : value.join(', ').slice(0, LONGEST);
  if (typeof value === 'object') return String((value as { rule?: unknown }).rule ?? '').slice(0, LONGEST) || null;
  return String(value).slice(0, LONGEST);
}
