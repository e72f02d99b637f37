import { type AttachmentsAnswer, MOST_ATTACHMENTS } from '@/contract/items/attachments.ts';
import { instantText } from '@/core/time/index.ts';
import type { Connection } from '../../db/index.ts';
import { MOST_FILE_BYTES, readFile, receiveFile, sweepFiles } from '../../files/store.ts';
import { newKey } from '../../ids.ts';
import {
  type Attachment,
  attachmentByKey,
  attachmentsOf,
  bytesAddedBy,
  digestIsUsed,
  forgetAttachments,
  insertAttachment,
  setAttachmentRemoved,
} from '../../repositories/attachments.ts';
import { itemById } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import {
  again,
  authorship,
  type Context,
  Directory,
  type FoundItem,
  findItem,
  isRefusal,
  viewFor,
  writeItems,
} from '../deciding/index.ts';

const DAY = 86_400_000;
/** Bytes one person adds in a day. */
const MOST_BYTES_A_DAY = 500_000_000;
const BACK_FOR = 30 * DAY;
/** Files of one person that are on their way at one time. */
const MOST_ARRIVING = 3;
const arriving = new Map<number, number>();

/** The files of an item, for whoever sees it in full; an occurrence has those of its series too. */
export function listAttachments(ctx: Context, id: string): Result<AttachmentsAnswer> {
  const found = findItem(ctx, id);
  return isRefusal(found) ? found : ok(filesOf(ctx, found));
}

function filesOf(ctx: Context, found: FoundItem): AttachmentsAnswer {
  const { item, may } = found;
  const directory = new Directory(ctx.db);
  const wire = (ofSeries: boolean) => (a: Attachment) => ({
    key: a.key,
    name: a.name,
    bytes: a.bytes,
    by: directory.name(a.addedBy),
    at: instantText(a.addedAt),
    ofSeries,
  });
  const series = seriesSeen(ctx, found);
  return {
    files: [
      ...attachmentsOf(ctx.db, item.id).map(wire(false)),
      ...(series ? attachmentsOf(ctx.db, series.id).map(wire(true)) : []),
    ],
    may: may.change,
  };
}

/** The series of an occurrence that is an item of its own, where the viewer sees that in full as well. */
function seriesSeen(ctx: Context, { item, decided }: FoundItem): StoredItem | null {
  const series = item.seriesId === null ? null : itemById(ctx.db, item.seriesId);
  if (!series || series.removedAt !== null) return null;
  return 'notes' in (viewFor(ctx, decided, series) ?? {}) ? series : null;
}

/**
 * Adds a file to an item, for whoever may change it: its bytes are taken as they come, and the right is read again, in the transaction that
 * writes, when all have arrived. Refused where it is too long, or where the item or the day of who adds has as many as may be.
 */
export async function addAttachment(
  ctx: Context,
  id: string,
  name: string,
  body: ReadableStream<Uint8Array> | null,
): Promise<Result<AttachmentsAnswer>> {
  const before = mayAdd(ctx, id, 0);
  if (isRefusal(before)) return before;
  const theirs = arriving.get(ctx.viewer.id) ?? 0;
  if (theirs >= MOST_ARRIVING) return refuse('tooManyArriving');
  arriving.set(ctx.viewer.id, theirs + 1);
  const file = await receiveFile(ctx.db.folder, body).finally(() => {
    const left = (arriving.get(ctx.viewer.id) ?? 1) - 1;
    if (left > 0) arriving.set(ctx.viewer.id, left);
    else arriving.delete(ctx.viewer.id);
  });
  if (!file) return refuse('fileTooLarge', { facts: { most: MOST_FILE_BYTES / 1_000_000 } });
  try {
    if (file.bytes === 0) return refuse('badInput', { fields: { file: 'fileEmpty' } });
    // In its place before a row names it: a file without a row is swept, a row without a file would be a lie.
    await file.save();
    return ctx.db.write(() => {
      const now = again(ctx);
      if (isRefusal(now)) return now;
      const found = mayAdd(now, id, file.bytes);
      if (isRefusal(found)) return found;
      const key = newKey();
      const { digest, bytes } = file;
      insertAttachment(now.db, {
        key,
        itemId: found.item.id,
        name,
        bytes,
        digest,
        addedBy: now.viewer.id,
        addedAt: now.now,
      });
      return ok(touched(now, found, 'file.added', null, name));
    });
  } finally {
    await file.drop();
  }
}

function mayAdd(ctx: Context, id: string, bytes: number): FoundItem | Refusal {
  const found = changeable(ctx, id);
  if (isRefusal(found)) return found;
  if (attachmentsOf(ctx.db, found.item.id).length >= MOST_ATTACHMENTS)
    return refuse('tooManyAttachments', { facts: { most: MOST_ATTACHMENTS } });
  if (bytesAddedBy(ctx.db, ctx.viewer.id, ctx.now - DAY) + bytes > MOST_BYTES_A_DAY)
    return refuse('addedTooMuchBytes', { facts: { most: MOST_BYTES_A_DAY / 1_000_000 } });
  return found;
}

function changeable(ctx: Context, id: string): FoundItem | Refusal {
  const found = findItem(ctx, id);
  if (isRefusal(found) || found.may.change) return found;
  return refuse('mayNotChange', { facts: { name: new Directory(ctx.db).name(found.decided.calendar.ownerId) } });
}

/** What a change of an item's files leaves: a row of the trail, and the item in another version, so that every window asks again. */
function touched(
  ctx: Context,
  { item, decided, view }: FoundItem,
  verb: string,
  before: string | null,
  after: string | null,
): AttachmentsAnswer {
  const { calendar } = decided;
  const next = { ...item, ...authorship(ctx, calendar), version: item.version + 1 };
  writeItems(ctx, calendar, verb, [{ before: item, after: next }], { before, after });
  const now = findItem(ctx, view.id);
  return isRefusal(now) ? { files: [], may: false } : filesOf(ctx, now);
}

/** A file with the item it stands at, found for whoever sees that in full. Hidden and missing are one answer. */
function findAttachment(ctx: Context, key: string): { file: Attachment; found: FoundItem } | Refusal {
  const file = attachmentByKey(ctx.db, key);
  const item = file && itemById(ctx.db, file.itemId);
  if (!file || !item) return refuse('notFound');
  const found = findItem(ctx, item.key);
  return isRefusal(found) ? found : { file, found };
}

/** A file's bytes and name, for whoever sees its item in full. */
export async function readAttachment(
  ctx: Context,
  key: string,
): Promise<Result<{ name: string; bytes: number; body: ReadableStream<Uint8Array> }>> {
  const at = findAttachment(ctx, key);
  if (isRefusal(at)) return at;
  if (at.file.removedAt !== null) return refuse('notFound');
  const body = await readFile(ctx.db.folder, at.file.digest);
  return body ? ok({ name: at.file.name, bytes: at.file.bytes, body }) : refuse('notFound');
}

/** Takes a file away from its item, for whoever may change that. */
export function removeAttachment(ctx: Context, key: string): Result<AttachmentsAnswer> {
  const at = findAttachment(ctx, key);
  if (isRefusal(at)) return at;
  if (at.file.removedAt !== null) return refuse('notFound');
  const found = changeable(ctx, at.found.item.key);
  if (isRefusal(found)) return found;
  setAttachmentRemoved(ctx.db, at.file.id, ctx.now);
  return ok(touched(ctx, found, 'file.removed', at.file.name, null));
}

/** Brings back a file that was taken away within thirty days. */
export function bringBackAttachment(ctx: Context, key: string): Result<AttachmentsAnswer> {
  const at = findAttachment(ctx, key);
  if (isRefusal(at)) return at;
  const { file } = at;
  if (file.removedAt === null || file.removedAt < ctx.now - BACK_FOR) return refuse('notFound');
  const found = mayAdd(ctx, at.found.item.key, 0);
  if (isRefusal(found)) return found;
  setAttachmentRemoved(ctx.db, file.id, null);
  return ok(touched(ctx, found, 'file.broughtBack', null, file.name));
}

/** Takes away for good what was removed thirty days ago, and bytes that no item has any more; others have their turn between. */
export async function clearAttachments(db: Connection, now: number, turn: () => Promise<void>): Promise<void> {
  while (forgetAttachments(db, now - BACK_FOR, 500) === 500) await turn();
  await sweepFiles(db.folder, (digest) => digestIsUsed(db, digest), Date.now() - DAY, turn);
}
