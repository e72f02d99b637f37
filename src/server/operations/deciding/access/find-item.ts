import type { ItemWire } from '@/contract/items/items.ts';
import type { MayItem } from '@/core/access/index.ts';
import { dateText, inBounds, toWall, wallText } from '@/core/time/index.ts';
import { openSealed } from '../../../ids.ts';
import { calendarById } from '../../../repositories/calendars.ts';
import { itemById, itemByKey, replacementsOf } from '../../../repositories/items.ts';
import type { StoredItem } from '../../../repositories/stored-item.ts';
import { ok, type Refusal, type Result, refuse } from '../../../result.ts';
import type { Context } from '../context/context.ts';
import { occurrenceAt, repeats } from '../writing/indexing.ts';
import { mayOn, viewFor } from '../writing/writing.ts';
import { type Decided, decideOn, isRefusal } from './deciding.ts';

/** An item found by an id that the viewer was given, with the occurrence meant where it is one of a series. */
export interface FoundItem {
  readonly decided: Decided;
  readonly item: StoredItem;
  readonly occurrence: { readonly start: number; readonly end: number; readonly recurrence: string } | null;
  readonly view: ItemWire;
  readonly may: MayItem;
}

/**
 * Finds an item for the viewer. An item they don't see in full is answered exactly like one that doesn't exist: below full only
 * ids are given out that don't lead here.
 */
export function findItem(ctx: Context, id: string): FoundItem | Refusal {
  const [key = '', seconds, ...rest] = id.split('~');
  if (rest.length > 0) return refuse('notFound');
  const stored = itemByKey(ctx.db, key);
  if (!stored || stored.removedAt !== null) return refuse('notFound');
  const calendar = calendarById(ctx.db, stored.calendarId);
  if (!calendar) return refuse('notFound');
  const decided = decideOn(ctx, calendar);
  const found = occurrenceOf(ctx, stored, seconds);
  if (found === undefined) return refuse('notFound');
  const item = found?.replacement ?? stored;
  const seen = seenItem(ctx, decided, item, found && !found.replacement ? found : null);
  return seen && 'notes' in seen.view ? seen : refuse('notFound');
}

/** An item with what the viewer sees of it and may do with it; `null` where they see nothing. */
function seenItem(
  ctx: Context,
  decided: Decided,
  item: StoredItem,
  occurrence: FoundItem['occurrence'],
): FoundItem | null {
  const view = viewFor(ctx, decided, item, occurrence ?? item);
  if (!view) return null;
  return { decided, item, occurrence, view, may: mayOn(ctx, decided.decision, item) };
}

/**
 * Finds an item of a calendar by any id the viewer was given, the sealed ones below full included. What they don't see now
 * is answered like what doesn't exist. Only for what needs no more than that they see it: suggesting.
 */
export function findSeen(ctx: Context, decided: Decided, id: string): FoundItem | Refusal {
  const found = findByAnyId(ctx, id);
  return isRefusal(found) || found.decided.calendar.id === decided.calendar.id ? found : refuse('notFound');
}

/**
 * Finds an item of whatever calendar by any id the viewer was given, the sealed ones below full included: to suggest about it,
 * or to remove what may be removed at whatever sight it is seen.
 */
export function findByAnyId(ctx: Context, id: string): FoundItem | Refusal {
  const full = findItem(ctx, id);
  if (!isRefusal(full)) return full;
  const sealed = openSealed(id);
  if (!sealed || sealed.viewer !== ctx.viewer.id) return full;
  const item = itemById(ctx.db, sealed.item);
  const calendar = item && item.removedAt === null ? calendarById(ctx.db, item.calendarId) : null;
  if (!item || !calendar) return full;
  const found = repeats(item) ? occurrenceOf(ctx, item, (sealed.start / 1000).toString(36)) : null;
  if (found === undefined || found?.replacement) return full;
  return seenItem(ctx, decideOn(ctx, calendar), item, found) ?? full;
}

function occurrenceOf(ctx: Context, item: StoredItem, seconds: string | undefined) {
  if (seconds === undefined) return null;
  const start = Number.parseInt(seconds, 36) * 1000;
  if (!Number.isFinite(start)) return undefined;
  if (!inBounds(start)) return undefined;
  const wall = item.wall !== null && start === item.start ? item.wall : toWall(item.zone, start);
  const recurrence = item.allDay ? dateText(start) : wallText(wall);
  const occurrence = occurrenceAt(ctx.db, item, start);
  if (occurrence) return { ...occurrence, recurrence, replacement: null };
  const replacement = replacementsOf(ctx.db, item.id).find((r) => r.recurrence === recurrence);
  return replacement ? { start, end: start, recurrence, replacement } : undefined;
}

/** One item, as the viewer sees it in full. */
export function readItem(ctx: Context, id: string): Result<ItemWire> {
  const found = findItem(ctx, id);
  return isRefusal(found) ? found : ok(found.view);
}
