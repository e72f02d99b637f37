import type { ItemPatch } from '@/contract/items/items.ts';
import { AS_SET_FIELDS, pick, settled, withoutEmpty } from '@/core/calendar/index.ts';
import { shiftedRule } from '@/core/recurrence/index.ts';
import { dateText, fromWallLenient, parseInstant, toWall, wallText } from '@/core/time/index.ts';
import { newKey } from '../../ids.ts';
import { copyAttachments } from '../../repositories/attachments.ts';
import { replacementsOf } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  authorship,
  type Context,
  Directory,
  type FoundItem,
  findItem,
  type ItemChange,
  type ItemsWritten,
  type ItemToWrite,
  isRefusal,
  noRoomFor,
  seriesOf,
  writeItems,
} from '../deciding/index.ts';
import { splitSeries } from './split-series.ts';
import { pickedDays, readRepeat, readWhen, type StoredWhen } from './when.ts';

/**
 * Changes the touched fields of an item, where the version is the one seen. Of a series, `one` makes the occurrence an item of its own, `later` it
 * and all after it a series of their own, `all` changes every occurrence that has no item of its own. `by` is whose work it is, where that is not the
 * one who writes; `unmodelled` are the lines of its text that aren't modelled, where a program sent others.
 */
export function changeItem(
  ctx: Context,
  id: string,
  patch: ItemPatch,
  by = ctx.viewer.id,
  unmodelled?: StoredItem['kept'],
): Result<ItemsWritten> {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return found;
  const { decided, item, occurrence } = found;
  const { calendar } = decided;
  const names = new Directory(ctx.db);
  if (!found.may.change) return refuse('mayNotChange', { facts: { name: names.name(calendar.ownerId) } });
  // A field one doesn't see isn't written, empty or not.
  const unseen = Object.entries(patch.fields).find(([field, value]) => value !== undefined && !(field in found.view));
  if (unseen) return refuse('badInput', { fields: { [unseen[0]]: 'notSeen' } });
  if (found.view.asSet === undefined && AS_SET_FIELDS.some((name) => patch[name] !== undefined))
    return refuse('mayNotChange', { facts: { name: names.name(calendar.ownerId) } });
  if (item.version !== patch.version) return refuse('changedMeanwhile', { data: found.view });
  const when = patch.when ? readWhen(patch.when) : null;
  if (when && isRefusal(when)) return when;
  const changed =
    occurrence && patch.scope === 'one'
      ? detached(found, patch, when)
      : occurrence && patch.scope === 'later'
        ? later(ctx, found, occurrence, patch, when)
        : whole(ctx, found, patch, when);
  if (isRefusal(changed)) return changed;

  return ctx.db.write(() => {
    const own = authorship(ctx, calendar, by);
    const items = changed.map(({ before, after }, i): ItemToWrite => {
      const lines = unmodelled && i === 0 ? { kept: unmodelled } : {};
      return before === null
        ? { before, after: { ...after, ...lines, ...own } }
        : { before, after: { ...after, ...lines, ...own, id: before.id } };
    });
    const written = writeItems(ctx, calendar, 'item.changed', items);
    const [first, second] = written.changes;
    // A series that goes on as another one goes on with its files.
    if (first?.before === null && second) copyAttachments(ctx.db, second.after.id, first.after.id, newKey);
    const main = (first as ItemChange).after;
    const moved = occurrence && patch.scope === 'all' ? movedOccurrence(found, main) : undefined;
    return ok({ ...written, decided, item: main, occurrence: moved });
  });
}

/** The fields a patch touches; an emptied line is none. */
function touched(patch: ItemPatch): Partial<StoredItem> {
  const said = Object.entries({ ...patch.fields, ...pick(patch, AS_SET_FIELDS) }).filter(
    ([, value]) => value !== undefined,
  );
  return withoutEmpty(Object.fromEntries(said));
}

/** A time as people wrote it: its length is exact, and its start is where the clocks show it. */
const anew = (when: StoredWhen) => ({ ...when, wall: null, days: 0 });

/** The occurrence as an item of its own. */
function detached(found: FoundItem, patch: ItemPatch, when: StoredWhen | null): ItemToWrite[] | Refusal {
  const { item, occurrence } = found;
  if (!occurrence) return [];
  if (patch.repeat || patch.dates || patch.left) return refuse('badInput', { fields: { repeat: 'repeatOfOne' } });
  const { id: _id, ...series } = item;
  const after: Omit<StoredItem, 'id'> = {
    ...series,
    ...touched(patch),
    ...(when ? anew(when) : { start: occurrence.start, end: occurrence.end, wall: null }),
    // What its series' file said stays with the series.
    kept: [],
    batch: null,
    key: newKey(),
    seriesId: item.id,
    recurrence: occurrence.recurrence,
    rule: null,
    added: [],
    left: [],
    sequence: item.sequence + 1,
    version: 1,
  };
  return [{ before: null, after: settled(after, item) }];
}

/** An occurrence and all later ones as a series of their own; what came before stays as it was. */
function later(
  ctx: Context,
  found: FoundItem,
  occurrence: NonNullable<FoundItem['occurrence']>,
  patch: ItemPatch,
  when: StoredWhen | null,
): ItemToWrite[] | Refusal {
  if (patch.dates || patch.left) return refuse('badInput', { fields: { repeat: 'repeatOfOne' } });
  const split = splitSeries(ctx, found.item, occurrence);
  if (split === null) return whole(ctx, found, patch, when);
  if (isRefusal(split)) return split;
  const { head, tail } = split;
  const changed = whole(ctx, { ...found, item: { ...tail, id: NOT_YET } }, patch, when);
  if (isRefusal(changed)) return changed;
  const { id: _id, ...after } = (changed[0] as ItemToWrite).after as StoredItem;
  const full = noRoomFor(ctx.db, found.decided.calendar, seriesOf(after, []));
  if (full) return full;
  return [
    { before: null, after: { ...after, sequence: 0, version: 1 } },
    { before: found.item, after: head },
  ];
}

/** The number of an item that isn't written yet: nothing stands under it. */
const NOT_YET = -1;

/** The item itself: a single one, or a series without the occurrences that are items of their own. */
function whole(ctx: Context, found: FoundItem, patch: ItemPatch, when: StoredWhen | null): ItemToWrite[] | Refusal {
  const { item, occurrence } = found;
  const isSeries = item.rule !== null || item.added.length > 0;
  let times: Partial<StoredItem> = when ? anew(when) : {};
  if (when && isSeries && occurrence) {
    const moved = moveSeries(ctx, item, occurrence, when);
    if (isRefusal(moved)) return moved;
    times = moved;
  }
  const next: StoredItem = settled({ ...item, ...touched(patch), ...times }, item);
  if (patch.repeat) {
    if (item.seriesId !== null) return refuse('badInput', { fields: { repeat: 'repeatOfOne' } });
    const startWall = next.allDay ? next.start : toWall(next.zone, next.start);
    const repeat = readRepeat(patch.repeat.rule, startWall, next.allDay ? null : next.zone);
    if (isRefusal(repeat)) return repeat;
    // With a new rule the old exceptions go: they would name dates that the rule no longer gives.
    if (repeat.rule !== item.rule) {
      if (replacementsOf(ctx.db, item.id).length > 0) return refuse('seriesSplit');
      const renewed = { ...next, rule: repeat.rule, added: [], left: [] };
      const full = noRoomFor(ctx.db, found.decided.calendar, seriesOf(renewed, []));
      if (full) return full;
      Object.assign(next, renewed);
    }
  }
  if (patch.dates || patch.left) {
    const dated = redated(ctx, found, next, patch);
    if (isRefusal(dated)) return dated;
    Object.assign(next, dated);
  }
  return [
    {
      before: item,
      after: {
        ...next,
        sequence: item.sequence + (when ? 1 : 0),
        version: item.version + 1,
      },
    },
  ];
}

/** A series on the days that were picked for it, and with those come back that were left out of it. */
function redated(ctx: Context, found: FoundItem, item: StoredItem, patch: ItemPatch): Partial<StoredItem> | Refusal {
  if (item.seriesId !== null) return refuse('badInput', { fields: { repeat: 'repeatOfOne' } });
  const stillLeft = patch.left ? item.left.filter((one) => patch.left?.includes(one)) : item.left;
  const dated = patch.dates ? pickedDays({ ...item, left: stillLeft }, patch.dates) : { left: stillLeft };
  if (isRefusal(dated)) return dated;
  const next = { ...item, ...dated };
  // An occurrence with an item of its own is one of the days as long as it stands.
  const days = new Set([...next.added, next.allDay ? dateText(next.start) : wallText(toWall(next.zone, next.start))]);
  const own = item.id === NOT_YET ? [] : replacementsOf(ctx.db, item.id);
  if (patch.dates && item.rule === null && own.some((one) => !days.has(one.recurrence ?? '')))
    return refuse('seriesSplit');
  return noRoomFor(ctx.db, found.decided.calendar, seriesOf(next, [])) ?? dated;
}

/**
 * Moves every occurrence of a series the way one of them was moved: other hours, another length, another day, with which the days of
 * its rule change. What was left out moves along.
 */
function moveSeries(
  ctx: Context,
  item: StoredItem,
  occurrence: { start: number; end: number },
  when: StoredWhen,
): Partial<StoredItem> | Refusal {
  // A zone of a file's own is shown, and so comes back, as the named one nearest to it.
  const zone = new Directory(ctx.db).zone(item.zone);
  if (when.allDay !== item.allDay || (!when.allDay && when.zone !== zone)) return refuse('seriesDayMove');
  if (replacementsOf(ctx.db, item.id).length > 0 && when.start !== occurrence.start) return refuse('seriesSplit');
  const wall = (ms: number) => (item.allDay ? ms : toWall(item.zone, ms));
  const instant = (ms: number) => (item.allDay ? ms : fromWallLenient(item.zone, ms));
  const text = (ms: number) => (item.allDay ? dateText(ms) : wallText(ms));
  const shift = wall(when.start) - wall(occurrence.start);
  const before = item.wall ?? wall(item.start);
  const rule = item.rule === null ? null : shiftedRule({ kind: 'rule', text: item.rule }, before, shift);
  // Days that the rule names otherwise don't simply move along.
  if (item.rule !== null && rule === null) return refuse('seriesDayMove');
  const startWall = before + shift;
  const start = instant(startWall);
  const moveText = (t: string) => {
    const at = parseInstant(`${t.includes('T') ? t : `${t}T00:00:00`}Z`);
    return at === null ? t : text(at + shift);
  };
  return {
    start,
    end: start + (when.end - when.start),
    wall: item.allDay || wall(start) === startWall ? null : startWall,
    days: 0,
    rule,
    added: item.added.map(moveText),
    left: item.left.map(moveText),
  };
}

function movedOccurrence(found: FoundItem, after: StoredItem): { start: number; end: number } {
  const { item, occurrence } = found;
  if (!occurrence) return after;
  const shift = toWall(after.zone, after.start) - toWall(item.zone, item.start);
  const start = fromWallLenient(after.zone, toWall(item.zone, occurrence.start) + shift);
  return { start, end: start + (after.end - after.start) };
}
