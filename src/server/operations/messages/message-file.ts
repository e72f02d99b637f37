import { readFile } from '../../files/store.ts';
import { folderOwner, messageByKey } from '../../repositories/messages.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, isRefusal } from '../deciding/index.ts';
import { findReader, mayReadMessage } from './readers.ts';

/** A file that came with a message the viewer reads whole, by its place among them. */
export async function readMessageFile(
  ctx: Context,
  key: string,
  place: string,
): Promise<Result<{ name: string; bytes: number; type: string; body: ReadableStream<Uint8Array> }>> {
  const message = messageByKey(ctx.db, key);
  const owner = message && message.removedAt === null ? folderOwner(ctx.db, message.collectionId) : null;
  const reader = owner ? findReader(ctx, owner) : refuse('notFound');
  if (!message || isRefusal(reader) || !mayReadMessage(ctx, reader, message)) return refuse('notFound');
  const file = /^\d{1,2}$/.test(place) ? message.facts.files?.[Number(place)] : undefined;
  const body = file?.digest ? await readFile(ctx.db.folder, file.digest) : null;
  if (!file || !body) return refuse('notFound');
  return ok({ name: file.name, bytes: file.bytes, type: file.type ?? '', body });
}
