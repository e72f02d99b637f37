import { createHash, randomBytes } from 'node:crypto';
import { createReadStream, rmSync, statSync } from 'node:fs';
import { mkdir, open, opendir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';

/*
 * Files in the data folder, each under the digest of its bytes (SHA-256): `files/ab/ab12…`. What a file is called, and who may have it, is
 * told by the rows that name it.
 */

/** Bytes of one file. */
export const MOST_FILE_BYTES = 25_000_000;
const DIGEST = /^[0-9a-f]{64}$/;

export const filesIn = (folder: string): string => join(folder, 'files');
const placeOf = (folder: string, digest: string): string => join(filesIn(folder), digest.slice(0, 2), digest);

/** A file that has arrived, not yet under its digest. */
export interface Arrived {
  readonly digest: string;
  readonly bytes: number;
  /** Puts it in its place; what stands there already is the same. */
  save(): Promise<void>;
  /** Takes it away again. */
  drop(): Promise<void>;
}

/**
 * Writes a stream to the data folder as it comes and digests it on the way. Answers `null`, and keeps nothing, as soon as it is longer than
 * allowed.
 */
export async function receiveFile(
  folder: string,
  body: ReadableStream<Uint8Array> | null,
  most = MOST_FILE_BYTES,
): Promise<Arrived | null> {
  const waiting = join(filesIn(folder), 'arriving');
  await mkdir(waiting, { recursive: true, mode: 0o700 });
  const path = join(waiting, randomBytes(16).toString('hex'));
  const digest = createHash('sha256');
  const to = await open(path, 'wx', 0o600);
  const drop = () => rm(path, { force: true });
  let bytes = 0;
  try {
    if (body)
      for await (const part of Readable.fromWeb(
        body as Parameters<typeof Readable.fromWeb>[0],
      ) as AsyncIterable<Buffer>) {
        bytes += part.byteLength;
        if (bytes > most) {
          await drop();
          return null;
        }
        digest.update(part);
        await to.write(part);
      }
    await to.sync();
  } catch (error) {
    await drop();
    throw error;
  } finally {
    await to.close();
  }
  const name = digest.digest('hex');
  const save = async () => {
    const place = placeOf(folder, name);
    await mkdir(join(place, '..'), { recursive: true, mode: 0o700 });
    await rename(path, place);
  };
  return { digest: name, bytes, save, drop };
}

/** A file's bytes as they are asked for; `null` where it isn't there. Nothing is held open before the first of them is wanted. */
export async function readFile(folder: string, digest: string): Promise<ReadableStream<Uint8Array> | null> {
  if (!DIGEST.test(digest)) return null;
  const place = placeOf(folder, digest);
  if (!(await stat(place).catch(() => null))) return null;
  let reader: ReadableStreamDefaultReader<Uint8Array> | null = null;
  return new ReadableStream(
    {
      async pull(to) {
        reader ??= (Readable.toWeb(createReadStream(place)) as ReadableStream<Uint8Array>).getReader();
        const { done, value } = await reader.read();
        if (done) to.close();
        else to.enqueue(value);
      },
      cancel: (why) => reader?.cancel(why),
    },
    { highWaterMark: 0 },
  );
}

/**
 * Takes away the files that `isUsed` doesn't know and that have been there for a while, so that one whose row is about to be written stays;
 * and what broke off while it arrived. Lets others have their turn between them.
 */
export async function sweepFiles(
  folder: string,
  isUsed: (digest: string) => boolean,
  olderThan: number,
  turn: () => Promise<void>,
): Promise<number> {
  let gone = 0;
  const parts = await opendir(filesIn(folder)).catch(() => null);
  if (!parts) return 0;
  for await (const part of parts) {
    const inside = await opendir(join(filesIn(folder), part.name)).catch(() => null);
    if (!inside) continue;
    for await (const { name } of inside) {
      await turn();
      const path = join(filesIn(folder), part.name, name);
      // All at once: the same bytes may be arriving anew just now, and then it is a fresh file.
      const facts = statSync(path, { throwIfNoEntry: false });
      if (!facts || facts.mtimeMs > olderThan || (DIGEST.test(name) && isUsed(name))) continue;
      rmSync(path, { force: true });
      gone++;
    }
  }
  return gone;
}
