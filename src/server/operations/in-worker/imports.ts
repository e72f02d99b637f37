import { mkdirSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { ImportDone, ImportPreview, ImportState } from '@/contract/items/files.ts';
import type { WrittenAnswer } from '@/contract/items/items.ts';
import type { Connection } from '../../db/index.ts';
import { newKey } from '../../ids.ts';
import { hub } from '../../live/hub.ts';
import { calendarById } from '../../repositories/calendars.ts';
import { trailByKey, weighEntry } from '../../repositories/trail.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { again, type Context, isRefusal } from '../deciding/index.ts';
import { findImportable } from '../items/index.ts';
import { undoSeveral, unlessItLeaves } from '../meetings/index.ts';
import { undoListedInWorker, work } from './in-worker.ts';
import { undoListed } from './undo-listed.ts';

const KEPT_FOR = 20 * 60_000;
/** Previews of one person that are kept; a further one takes the place of the oldest of their own. */
const MOST_KEPT_EACH = 3;
const LONGEST_READING = 20_000;

/** A preview that is kept, or its bringing in under way. What it read is in a file of the data folder. */
interface SavedPreview {
  readonly person: number;
  readonly calendar: string;
  readonly file: string;
  readonly left: number;
  readonly at: number;
  state: ImportState;
  stop: (() => void) | null;
}
const holder = globalThis as { paramoPreviews?: Map<string, SavedPreview> };
const previews = (): Map<string, SavedPreview> => {
  holder.paramoPreviews ??= new Map();
  return holder.paramoPreviews;
};

/** Beside the data they are for. */
const folderOf = (db: Connection): string => join(dirname(db.raw.name), 'previews');

/** Clears away what a process before kept of files it had read. */
export function clearPreviews(db: Connection): void {
  rmSync(folderOf(db), { recursive: true, force: true });
}

function drop(key: string): void {
  const saved = previews().get(key);
  if (saved) rmSync(saved.file, { force: true });
  previews().delete(key);
}

/** Drops what is over, and of one person's the oldest beyond their most. */
function tidy(person: number, now: number): void {
  for (const [key, saved] of previews()) if (now - saved.at > KEPT_FOR && saved.state.kind !== 'comingIn') drop(key);
  const own = [...previews()].filter(([, saved]) => saved.person === person && saved.state.kind !== 'comingIn');
  for (const [key] of own.slice(0, Math.max(0, own.length - MOST_KEPT_EACH + 1))) drop(key);
}

/**
 * Reads a calendar file on a worker thread and says what would come in, what is there already and what can't be read and why. Nothing is
 * written; the reading is kept for a while under the preview's key. It is given up when `signal` says that the one who asked has left.
 */
export async function previewImport(
  ctx: Context,
  key: string,
  bytes: Uint8Array,
  signal?: AbortSignal,
): Promise<Result<ImportPreview>> {
  const decided = findImportable(ctx, key);
  if (isRefusal(decided)) return decided;
  const folder = folderOf(ctx.db);
  mkdirSync(folder, { recursive: true });
  tidy(ctx.viewer.id, ctx.now);
  const preview = newKey();
  const file = join(folder, `${preview}.json`);
  const read = await work(
    ctx,
    'readFile',
    { key, bytes, file },
    { longestMs: LONGEST_READING, begun: (stop) => signal?.addEventListener('abort', stop) },
  );
  if (!read.ok) return read;
  previews().set(preview, {
    person: ctx.viewer.id,
    calendar: key,
    file,
    left: read.value.counts.there + read.value.counts.problems,
    at: ctx.now,
    state: { kind: 'ready', done: 0, of: read.value.counts.fresh + read.value.counts.newer },
    stop: null,
  });
  return ok({ preview, ...read.value });
}

function find(ctx: Context, preview: string): SavedPreview | null {
  const saved = previews().get(preview);
  return saved && saved.person === ctx.viewer.id && ctx.now - saved.at <= KEPT_FOR ? saved : null;
}

/** How far bringing in a preview has come. */
export function readImport(ctx: Context, preview: string): Result<ImportState> {
  const saved = find(ctx, preview);
  return saved ? ok(saved.state) : refuse('previewGone');
}

/** Stops bringing in a preview: nothing of it stays. Where it is in already, that is left as it is. */
export function stopImport(ctx: Context, preview: string): Result<{ done: true }> {
  const saved = find(ctx, preview);
  if (!saved) return refuse('previewGone');
  saved.stop?.();
  return ok({ done: true });
}

/** Brings in what a preview said it would, on a worker thread and in slices, and lets it be seen as one act, or none of it. */
export async function bringIn(ctx: Context, preview: string): Promise<Result<ImportDone>> {
  const saved = find(ctx, preview);
  if (!saved) return refuse('previewGone');
  if (saved.state.kind === 'comingIn') return refuse('busyBringingIn');
  const decided = findImportable(ctx, saved.calendar);
  if (isRefusal(decided)) return decided;
  const { of } = saved.state;
  saved.state = { kind: 'comingIn', done: 0, of };
  const answer = await work(
    ctx,
    'bringIn',
    { key: saved.calendar, file: saved.file },
    {
      progress: (done, all) => {
        saved.state = { kind: 'comingIn', done, of: all };
      },
      begun: (stop) => {
        saved.stop = stop;
      },
    },
  ).finally(() => {
    saved.state = { kind: 'ready', done: 0, of };
    saved.stop = null;
  });
  if (!answer.ok) return answer;
  drop(preview);
  for (const listener of answer.value.tell) hub().changed(listener, saved.calendar, null);
  const { broughtIn, renewed, undo: token } = answer.value;
  return ok({ broughtIn, renewed, left: saved.left, undo: token });
}

/** States of an entry, in bytes, that are read and put back on the request's thread. */
const FEW_BYTES = 100_000;

/** Takes back one write of one's own; much of it, and what a file brought in, on a worker thread. */
export async function undoAny(ctx: Context, key: string): Promise<Result<WrittenAnswer>> {
  const found = weighEntry(ctx.db, key);
  const listed = found !== null && /^(task|contact)\./.test(found.verb);
  if (listed && found.bytes > FEW_BYTES) return undoListedInWorker(ctx, key);
  const entry = trailByKey(ctx.db, key);
  if (!entry || Array.isArray(entry.after))
    return ctx.db.write(() => {
      const now = again(ctx);
      if (isRefusal(now)) return now;
      return listed ? undoListed(now, key) : unlessItLeaves(now, undoSeveral(now, key));
    });
  const calendar = entry.collectionId === null ? null : calendarById(ctx.db, entry.collectionId);
  if (!calendar || entry.actorId !== ctx.viewer.id || entry.verb !== 'item.broughtIn') return refuse('notFound');
  const answer = await work(ctx, 'takeBatchBack', { key });
  if (!answer.ok) return answer;
  for (const listener of answer.value.tell) hub().changed(listener, calendar.key, null);
  return ok({ item: null, undo: answer.value.undo });
}
