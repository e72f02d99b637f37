import { readFileSync } from 'node:fs';
import { freshFields } from '@/core/calendar/index.ts';
import { type ReadItem, recurrenceIn } from '@/core/formats/index.ts';
import { defineZone, isDefined, toWall } from '@/core/time/index.ts';
import type { Connection } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import type { Listener } from '../../live/hub.ts';
import {
  type Batch,
  batchByKey,
  bornIn,
  dropItemsOf,
  forget,
  insertBatch,
  letItemsIn,
  saveBatch,
  takeItemsOut,
  unfinishedBatches,
} from '../../repositories/batches.ts';
import { type Calendar, calendarById } from '../../repositories/calendars.ts';
import { insertItem, updateItem } from '../../repositories/item-writes.ts';
import { COMING, itemById, itemsByUid, itemsOfBatch } from '../../repositories/items.ts';
import { dropComing, letIn, saveComing, unindexBatch } from '../../repositories/occurrences.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { trailByKey } from '../../repositories/trail.ts';
import { saveZone } from '../../repositories/zone-definitions.ts';
import { ok, type Result, refuse } from '../../result.ts';
import type { Port } from '../../workers/port.ts';
import {
  again,
  authorship,
  type Context,
  Directory,
  indexItem,
  isRefusal,
  repeats,
  trailOn,
  whoSees,
} from '../deciding/index.ts';
import { noRoom } from './create-item.ts';
import { findImportable } from './importing.ts';
import { occurrencesRead, type ReadyFile, replacedIn, seriesForm, thereAlready } from './read-file.ts';

/** Items written in one go before others get their turn. */
const A_SLICE = 100;
const UNDO_FOR = 15 * 60_000;

export interface BroughtIn {
  readonly broughtIn: number;
  readonly renewed: number;
  readonly undo: string;
  /** Whose windows show something of it. */
  readonly tell: readonly Listener[];
}

/**
 * Brings in what a file's reading left: items are written in slices, hidden beside the calendar, and let in by one act, in which the
 * right to do so is read once more. Stopped, refused or broken off, nothing of it stays.
 */
export async function bringInSteps(
  ctx: Context,
  args: { key: string; file: string },
  port: Port,
): Promise<Result<BroughtIn>> {
  const ready = readReady(args.file);
  if (!ready) return refuse('previewGone');
  const begun = ctx.db.write(() => begin(ctx, args.key, ready));
  if (isRefusal(begun)) return begun;
  const { batch, calendar } = begun;
  try {
    const stopped = await writeSlices(ctx, calendar, batch, ready, port);
    const answer = stopped
      ? refuse('stopped')
      : await port.alone((listeners) => ctx.db.write(() => close(ctx, args.key, batch, ready, listeners)));
    if (!answer.ok) await forgetBatch(ctx.db, batch.id, port.others);
    else while (ctx.db.write(() => dropComing(ctx.db, batch.id, 2000))) await port.others();
    return answer;
  } catch (error) {
    await forgetBatch(ctx.db, batch.id, port.others);
    throw error;
  }
}

function readReady(file: string): ReadyFile | null {
  let ready: ReadyFile;
  try {
    ready = JSON.parse(readFileSync(file, 'utf8')) as ReadyFile;
  } catch {
    return null;
  }
  for (const zone of ready.zones) if (!isDefined(zone.name)) defineZone(zone.name, zone.definition);
  return ready;
}

function begin(outer: Context, key: string, ready: ReadyFile) {
  const ctx = again(outer);
  if (isRefusal(ctx)) return ctx;
  const decided = findImportable(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar } = decided;
  if (ready.fresh.length + ready.newer.length === 0) return refuse('nothingToBringIn');
  const full = noRoom(ctx, calendar, ctx.viewer.id, ready.fresh.length);
  if (full) return full;
  const batch = insertBatch(ctx.db, { key: newKey(), calendarId: calendar.id, personId: ctx.viewer.id, at: ctx.now });
  return { batch, calendar };
}

/** Writes the fresh items and what happens of them beside the calendar; answers whether it was stopped. */
async function writeSlices(
  ctx: Context,
  calendar: Calendar,
  batch: Batch,
  ready: ReadyFile,
  port: Port,
): Promise<boolean> {
  const owner = ownersAddress(ctx, calendar);
  const replaced = replacedIn([...ready.fresh, ...ready.newer]);
  // Series come first, so that what stands for one of their occurrences can point at them.
  const ordered = [...ready.fresh].sort((a, b) => Number(a.recurrence !== null) - Number(b.recurrence !== null));
  const series = new Map<string, number>();
  const all = ordered.length + ready.newer.length;
  for (let i = 0; i < ordered.length; i += A_SLICE) {
    if (port.stopped()) return true;
    ctx.db.write(() => {
      for (const read of ordered.slice(i, i + A_SLICE)) {
        const draft = storedFrom(ctx, calendar, read, owner);
        const seriesId = read.recurrence === null ? null : (series.get(read.uid) ?? null);
        // Without its series it is named on its own clock, until that comes.
        const recurrence = seriesId === null ? recurrenceIn(read, read) : read.recurrence;
        const item = insertItem(ctx.db, { ...draft, seriesId, recurrence, removedAt: COMING, batch: batch.id });
        if (read.recurrence === null && repeats(read)) series.set(read.uid, item.id);
        saveComing(ctx.db, batch.id, item.id, item.allDay, occurrencesRead(calendar, read, replaced).list);
      }
    });
    port.progress(Math.min(i + A_SLICE, ordered.length), all);
    await port.others();
  }
  return port.stopped();
}

/**
 * The act in which a batch comes in: the viewer and their right are read once more, what came meanwhile is left out, and everything is there at once.
 */
function close(
  outer: Context,
  key: string,
  batch: Batch,
  ready: ReadyFile,
  listeners: readonly Listener[],
): Result<BroughtIn> {
  const ctx = again(outer);
  if (isRefusal(ctx)) return ctx;
  const decided = findImportable(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar } = decided;
  for (const zone of ready.zones) saveZone(ctx.db, zone);
  dropItemsOf(ctx.db, batch.id);
  letIn(ctx.db, batch.id, calendar.id);
  letItemsIn(ctx.db, batch.id);
  const before: StoredItem[] = [];
  const touched = new Set<number>();
  for (const read of ready.newer) {
    const standing = thereAlready(ctx.db, calendar, read);
    if (!standing || standing.sequence >= read.sequence) continue;
    before.push(standing);
    updateItem(ctx.db, renewed(ctx, calendar, standing, read));
    touched.add(standing.id);
  }
  for (const id of joinToSeries(ctx.db, calendar, [...ready.fresh, ...ready.newer], before)) touched.add(id);
  for (const id of touched) {
    const item = itemById(ctx.db, id);
    if (item) indexItem(ctx.db, calendar, item);
  }
  saveBatch(ctx.db, batch.id, 'in', before);
  const fresh = itemsOfBatch(ctx.db, batch.id);
  const undo = trailOn(ctx, calendar, batch.key, 'item.broughtIn', null, {
    batch: batch.key,
    items: fresh.length,
    renewed: before.length,
  });
  const changes = [
    ...fresh.map((after) => ({ before: null, after })),
    ...before.map((was) => ({ before: was, after: itemById(ctx.db, was.id) })),
  ];
  const tell = whoSees(ctx, calendar, changes, listeners);
  return ok({ broughtIn: fresh.length, renewed: before.length, undo, tell });
}

/**
 * Joins occurrences to their series, whichever came first: those of the file to one that stands, and those that stood without one to
 * the file's. Answers the series whose occurrences changed by it; what was changed is added to `before`.
 */
function joinToSeries(db: Connection, calendar: Calendar, items: readonly ReadItem[], before: StoredItem[]): number[] {
  const known = new Set(before.map((i) => i.id));
  const changed: number[] = [];
  for (const uid of new Set(items.map((i) => i.uid))) {
    const all = itemsByUid(db, calendar.id, uid);
    const series = all.find((i) => i.recurrence === null && repeats(i));
    if (!series) continue;
    for (const item of all) {
      if (item.recurrence === null || item.seriesId === series.id) continue;
      const recurrence = recurrenceIn(seriesForm(series), { recurrence: item.recurrence, recurrenceZone: item.zone });
      // Two that turn out to stand for one occurrence stay as they are: nothing is thrown away unseen.
      if (all.some((other) => other !== item && other.recurrence === recurrence)) continue;
      if (item.batch === null && !known.has(item.id)) before.push(item);
      updateItem(db, { ...item, seriesId: series.id, recurrence });
    }
    if (all.length > 1) changed.push(series.id);
  }
  return changed;
}

const ownersAddress = (ctx: Context, calendar: Calendar): string =>
  new Directory(ctx.db).person(calendar.ownerId)?.address ?? '';

/** What a file says of an item, as it is stored. */
function fieldsFrom(read: ReadItem, owner: string) {
  const {
    line: _line,
    stamp: _stamp,
    start: _start,
    end: _end,
    startAt,
    endAt,
    length,
    recurrence: _r,
    recurrenceZone: _z,
    ...fields
  } = read;
  const wall = read.allDay ? null : wallLeftOut(read);
  return {
    ...fields,
    start: startAt,
    end: Math.max(startAt, endAt),
    wall,
    days: read.allDay ? 0 : length.days,
    ownerAnswer: read.attendees.find((a) => a.address === owner)?.answer ?? null,
    ownerInvited: read.attendees.some((a) => a.address === owner) && read.organiser?.address !== owner,
  };
}

/** The wall time a start was given as, where the clocks don't show it. */
function wallLeftOut(read: ReadItem): number | null {
  const given = Date.parse(`${read.start}Z`);
  return toWall(read.zone, read.startAt) === given ? null : given;
}

function storedFrom(ctx: Context, calendar: Calendar, read: ReadItem, owner: string): Omit<StoredItem, 'id'> {
  const own = authorship(ctx, calendar);
  return {
    ...freshFields(read.title),
    ...fieldsFrom(read, owner),
    ...own,
    key: newKey(),
    calendarId: calendar.id,
    seriesId: null,
    recurrence: read.recurrence,
    version: 1,
    createdBy: own.changedBy,
    createdFor: own.changedFor,
    createdAt: own.changedAt,
    removedAt: null,
    batch: null,
    holdSet: null,
    lapsesAt: null,
  };
}

/** An item with a newer revision of it in place: what is its own here (who sees it, its kind, the briefing) stays, never wider. */
function renewed(ctx: Context, calendar: Calendar, standing: StoredItem, read: ReadItem): StoredItem {
  const fields = fieldsFrom(read, ownersAddress(ctx, calendar));
  return {
    ...standing,
    ...fields,
    ...authorship(ctx, calendar),
    kind: standing.kind,
    visibility: read.visibility === 'private' ? 'private' : standing.visibility,
    version: standing.version + 1,
  };
}

/**
 * Takes back what a file brought in, as one act: its items go, and what it renewed or joined is as before. Refused once someone built
 * on any of it.
 */
export async function takeBatchBack(
  ctx: Context,
  args: { key: string },
  port: Port,
): Promise<Result<{ undo: string; tell: readonly Listener[] }>> {
  return port.alone((listeners) => ctx.db.write(() => takeBack(ctx, args.key, listeners)));
}

function takeBack(
  outer: Context,
  key: string,
  listeners: readonly Listener[],
): Result<{ undo: string; tell: readonly Listener[] }> {
  const ctx = again(outer);
  if (isRefusal(ctx)) return ctx;
  const entry = trailByKey(ctx.db, key);
  const after = entry?.after as { batch?: string } | null | undefined;
  const batch = after?.batch === undefined ? null : batchByKey(ctx.db, after.batch);
  if (!entry || !batch || entry.actorId !== ctx.viewer.id || ctx.now - entry.at > UNDO_FOR) return refuse('notFound');
  const calendar = calendarById(ctx.db, batch.calendarId);
  const decided = calendar && findImportable(ctx, calendar.key);
  if (!calendar || !decided) return refuse('notFound');
  if (isRefusal(decided)) return decided;
  const items = itemsOfBatch(ctx.db, batch.id);
  const stand = batch.before.map((was) => itemById(ctx.db, was.id));
  const builtOn = stand.some((now, i) => {
    const was = batch.before[i] as StoredItem;
    return !now || now.removedAt !== null || now.version > was.version + 1;
  });
  if (batch.state !== 'in' || !bornIn(ctx.db, batch.id) || builtOn) return refuse('changedMeanwhile');
  unindexBatch(ctx.db, batch.id);
  takeItemsOut(ctx.db, batch.id, ctx.now);
  const touched = new Set<number>();
  for (const [i, was] of batch.before.entries()) {
    const now = stand[i] as StoredItem;
    updateItem(ctx.db, { ...was, ...authorship(ctx, calendar), version: now.version + 1 });
    touched.add(was.id);
  }
  for (const { uid } of items)
    for (const item of itemsByUid(ctx.db, calendar.id, uid)) if (repeats(item)) touched.add(item.id);
  for (const id of touched) {
    const item = itemById(ctx.db, id);
    if (item) indexItem(ctx.db, calendar, item);
  }
  saveBatch(ctx.db, batch.id, 'undone', []);
  const undo = trailOn(ctx, calendar, batch.key, 'item.takenBack', { batch: batch.key }, null);
  const changes = [
    ...items.map((before) => ({ before: { ...before, removedAt: null }, after: null })),
    ...batch.before.map((was, i) => ({ before: stand[i] ?? null, after: was })),
  ];
  return ok({ undo, tell: whoSees(ctx, calendar, changes, listeners) });
}

/** Removes what there is of a batch that didn't come in, in slices. */
async function forgetBatch(db: Connection, batch: number, others: () => Promise<void>): Promise<void> {
  while (db.write(() => dropComing(db, batch, 2000))) await others();
  while (db.write(() => forget(db, batch, 500))) await others();
}

/** Removes what a process that ended left of files that were coming in. Run at the start. */
export async function forgetUnfinished(db: Connection, others: () => Promise<void>): Promise<void> {
  for (const batch of unfinishedBatches(db)) await forgetBatch(db, batch, others);
}
