import type { ImportDone, ImportPreview } from '@/contract/imports.ts';
import type { Decision } from '@/core/access/index.ts';
import { calendarFileName, type ReadItem, type WrittenItem, writeCalendar } from '@/core/formats/index.ts';
import { readRule } from '@/core/recurrence/index.ts';
import { dateText, fromWallLenient, parseDate, parseWall, toWall, wallText } from '@/core/time/index.ts';
import { newKey } from '../ids.ts';
import type { Calendar } from '../repositories/calendars.ts';
import { allItems, insertItem, itemsByUid, type StoredItem } from '../repositories/items.ts';
import { ok, type Refusal, type Result, refuse } from '../result.ts';
import { settings } from '../settings.ts';
import { readInWorker } from '../workers/read-in-worker.ts';
import { announceItems } from './announce.ts';
import type { Context } from './context.ts';
import { type Decided, findCalendar, isRefusal } from './deciding.ts';
import { Directory } from './directory.ts';
import { indexItem } from './indexing.ts';
import { hands, type ItemChange, trailItems } from './writing.ts';

const KEPT_FOR = 20 * 60_000;
const MOST_KEPT = 20;
const MOST_ITEMS = 20_000;
const SHOWN = 500;

interface Kept {
  readonly person: number;
  readonly calendar: string;
  readonly items: readonly ReadItem[];
  readonly there: number;
  readonly problems: number;
  readonly at: number;
}
const holder = globalThis as { paramoPreviews?: Map<string, Kept> };
const previews = (): Map<string, Kept> => {
  holder.paramoPreviews ??= new Map();
  return holder.paramoPreviews;
};

/**
 * Bringing in a file and taking one out touch every item, private ones too, and say what is there already: so they are for
 * the owner, and for whoever arranges everything and is let into what is private.
 */
export function mayImport(decision: Decision): boolean {
  return decision.owner || (decision.rights.add && decision.rights.change === 'all' && decision.rights.private);
}

function findImportable(ctx: Context, key: string): Decided | Refusal {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided) || mayImport(decided.decision)) return decided;
  return refuse('mayNotImport', { facts: { name: new Directory(ctx.db).name(decided.calendar.ownerId) } });
}

/**
 * Reads a calendar file and says what would come in, what is there already and what can't be read and why. Nothing is
 * written; the reading is kept for a while under the preview's key.
 */
export async function previewImport(
  ctx: Context,
  key: string,
  body: ReadableStream<Uint8Array> | null,
): Promise<Result<ImportPreview>> {
  const decided = findImportable(ctx, key);
  if (isRefusal(decided)) return decided;
  const bytes = await readLimited(body, settings().importBytes);
  if (bytes === null)
    return refuse('fileTooLarge', { facts: { most: Math.floor(settings().importBytes / 1_000_000) } });
  const { calendar } = decided;
  const read = await readInWorker(bytes, { zone: calendar.zone, now: ctx.now, most: MOST_ITEMS });
  if (read.kind === 'refused') return refuse(read.code, { facts: { most: MOST_ITEMS } });

  const problems = [...read.problems];
  const readable: ReadItem[] = [];
  for (const item of read.items) {
    const code = item.rule === null ? null : ruleProblem(item);
    if (code) problems.push({ code, line: item.line, title: item.title, fact: item.rule });
    else readable.push(item);
  }
  const there = readable.filter((item) => isThere(ctx, calendar, item));
  const thereSet = new Set(there);
  const fresh = readable.filter((item) => !thereSet.has(item));
  const preview = newKey();
  keep(preview, {
    person: ctx.viewer.id,
    calendar: key,
    items: fresh,
    there: there.length,
    problems: problems.length,
    at: ctx.now,
  });
  problems.sort((a, b) => a.line - b.line);
  return ok({
    preview,
    fresh: fresh.slice(0, SHOWN).map(inPreview),
    there: there.slice(0, SHOWN).map(inPreview),
    problems: problems
      .slice(0, SHOWN)
      .map(({ code, line, title, fact }) => ({ code, line, title, fact: fact?.slice(0, 200) ?? null })),
    remarks: read.remarks.slice(0, 50).map((r) => ({ ...r, fact: r.fact.slice(0, 200) })),
    counts: { fresh: fresh.length, there: there.length, problems: problems.length },
    ended: read.ended,
  });
}

function ruleProblem(item: ReadItem): string | null {
  const read = readRule(item.rule as string, startWall(item.start), item.allDay ? 'UTC' : item.zone);
  return read.kind === 'problem' ? read.code : null;
}

const startWall = (text: string): number => parseWall(text) ?? parseDate(text) ?? 0;

function isThere(ctx: Context, calendar: Calendar, item: ReadItem): boolean {
  return itemsByUid(ctx.db, calendar.id, item.uid).some((i) => i.recurrence === item.recurrence);
}

function inPreview(item: ReadItem) {
  const { title, start, end, allDay, zone, visibility, line } = item;
  return { title, start, end, allDay, zone, repeats: item.rule, replaces: item.recurrence, visibility, line };
}

function keep(key: string, kept: Kept): void {
  const map = previews();
  for (const [k, v] of map) if (kept.at - v.at > KEPT_FOR) map.delete(k);
  while (map.size >= MOST_KEPT) map.delete(map.keys().next().value as string);
  map.set(key, kept);
}

/** Brings in what a preview said it would, all in one transaction, or none of it. */
export function bringIn(ctx: Context, preview: string): Result<ImportDone> {
  const kept = previews().get(preview);
  if (!kept || kept.person !== ctx.viewer.id || ctx.now - kept.at > KEPT_FOR) return refuse('previewGone');
  const decided = findImportable(ctx, kept.calendar);
  if (isRefusal(decided)) return decided;
  const { calendar } = decided;
  const owner = new Directory(ctx.db).person(calendar.ownerId)?.address ?? '';
  const items = kept.items.filter((item) => !isThere(ctx, calendar, item));
  if (items.length === 0) return refuse('nothingToBringIn');
  const { changes, undo } = ctx.db.write(() => {
    const bySeries = new Map<string, StoredItem>();
    const changes: ItemChange[] = [];
    const ordered = [...items].sort((a, b) => Number(a.recurrence !== null) - Number(b.recurrence !== null));
    for (const read of ordered) {
      const series = read.recurrence === null ? null : seriesFor(ctx, calendar, read.uid, bySeries);
      const item = insertItem(ctx.db, storedFrom(ctx, calendar, read, series, owner));
      if (read.rule !== null || read.added.length > 0) bySeries.set(read.uid, item);
      changes.push({ before: null, after: item });
    }
    for (const { after } of changes) indexItem(ctx.db, calendar, after);
    for (const series of new Set(
      changes.flatMap((c) => (c.after.seriesId === null ? [] : [bySeries.get(c.after.uid)])),
    ))
      if (series) indexItem(ctx.db, calendar, series);
    return { changes, undo: trailItems(ctx, calendar, 'item.broughtIn', changes) };
  });
  previews().delete(preview);
  announceItems(ctx, calendar, changes);
  return ok({ broughtIn: changes.length, left: kept.there + kept.problems, undo });
}

function seriesFor(
  ctx: Context,
  calendar: Calendar,
  uid: string,
  bySeries: Map<string, StoredItem>,
): StoredItem | null {
  const known = bySeries.get(uid);
  if (known) return known;
  const found = itemsByUid(ctx.db, calendar.id, uid).find(
    (i) => i.seriesId === null && (i.rule !== null || i.added.length > 0),
  );
  if (found) bySeries.set(uid, found);
  return found ?? null;
}

function storedFrom(
  ctx: Context,
  calendar: Calendar,
  read: ReadItem,
  series: StoredItem | null,
  owner: string,
): Omit<StoredItem, 'id'> {
  const { line: _line, start, end, recurrence, rule, ...fields } = read;
  const instant = (text: string) => (read.allDay ? startWall(text) : fromWallLenient(read.zone, startWall(text)));
  const own = hands(ctx, calendar);
  const zone = read.allDay ? 'UTC' : read.zone;
  const normal = rule === null ? null : readRule(rule, startWall(start), zone);
  return {
    ...fields,
    ...own,
    key: newKey(),
    calendarId: calendar.id,
    seriesId: series?.id ?? null,
    recurrence: series ? recurrence : null,
    // A happening whose series isn't in the file stands as an item of its own, under a UID that can't meet the series'.
    uid: recurrence !== null && !series ? `${read.uid}#${recurrence}` : read.uid,
    start: instant(start),
    end: Math.max(instant(start), instant(end)),
    rule: normal?.kind === 'rule' ? normal.text : null,
    ownerAnswer: read.attendees.find((a) => a.address === owner)?.answer ?? null,
    ownerInvited: read.attendees.some((a) => a.address === owner) && read.organiser?.address !== owner,
    briefing: null,
    version: 1,
    createdBy: own.changedBy,
    createdFor: own.changedFor,
    createdAt: own.changedAt,
    removedAt: null,
  };
}

/** Reads a body, counting as it comes; `null` as soon as it is longer than allowed. */
async function readLimited(body: ReadableStream<Uint8Array> | null, most: number): Promise<Uint8Array | null> {
  if (!body) return new Uint8Array();
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = body.getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.byteLength;
    if (size > most) {
      await reader.cancel();
      return null;
    }
    parts.push(value);
  }
  return Buffer.concat(parts);
}

/** A calendar as a file: everything in it, for those who may bring in. Reading it back gives the same items. */
export function exportFile(ctx: Context, key: string): Result<{ name: string; text: string }> {
  const decided = findImportable(ctx, key);
  if (isRefusal(decided)) return decided;
  const { calendar } = decided;
  const items = allItems(ctx.db, calendar.id).map(writtenFrom);
  return ok({ name: calendarFileName(calendar.name, ctx.now), text: writeCalendar(items, calendar.name) });
}

function writtenFrom(item: StoredItem): WrittenItem {
  const text = (ms: number) => (item.allDay ? dateText(ms) : wallText(toWall(item.zone, ms)));
  return { ...item, start: text(item.start), end: text(item.end) };
}
