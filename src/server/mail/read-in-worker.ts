import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Worker } from 'node:worker_threads';
import { type Invitations, readInvitations } from './read-invitations.ts';
import { type ReadMail, readHead, readMail } from './read-mail.ts';

const LONGEST_MS = 15_000;
const MEGABYTES = 512;
const script = (): string => join(process.cwd(), 'dist/workers/mail-worker.mjs');
const holder = globalThis as { paramoMailReader?: MailReader | null; paramoMailQueue?: Promise<unknown> };

/** What the thread is asked to read: a mail, or the calendar parts of one. */
export type ForMailThread =
  | { readonly kind: 'mail'; readonly bytes: Uint8Array }
  | {
      readonly kind: 'invitations';
      readonly parts: readonly string[];
      readonly sender: string;
      readonly clocks: readonly string[];
    };
type Invited = Record<string, Invitations>;

/** Reads in place what the thread is asked to read. */
export const readHere = (what: ForMailThread): Promise<ReadMail> | Invited =>
  what.kind === 'mail' ? readMail(what.bytes) : readInvitations(what.parts, what.sender, what.clocks);

/** One thread, and what it is reading. It ends with its first failure; the next mail begins another. */
class MailReader {
  private readonly worker: Worker;
  private next = 1;

  constructor() {
    const { Worker } = process.getBuiltinModule('node:worker_threads');
    this.worker = new Worker(script(), { resourceLimits: { maxOldGenerationSizeMb: MEGABYTES } });
    this.worker.unref();
  }

  read<T>(what: ForMailThread): Promise<T | null> {
    const id = this.next++;
    const { worker } = this;
    return new Promise((resolve) => {
      const over = (read: T | null) => {
        clearTimeout(timer);
        worker.off('message', hear).off('error', fail).off('exit', fail);
        if (!read) {
          holder.paramoMailReader = null;
          void worker.terminate();
        }
        resolve(read);
      };
      const hear = (said: { id: number; read: T }) => said.id === id && over(said.read);
      const fail = () => over(null);
      const timer = setTimeout(fail, LONGEST_MS);
      worker.on('message', hear).on('error', fail).on('exit', fail);
      worker.postMessage({ id, what });
    });
  }
}

/** Reads beside the thread that serves requests, one mail after the other, within bounds of time and memory; `null` for what goes beyond them. */
function beside<T>(what: ForMailThread): Promise<T | null> {
  const read = () => {
    holder.paramoMailReader ??= new MailReader();
    return holder.paramoMailReader.read<T>(what);
  };
  const next = (holder.paramoMailQueue ?? Promise.resolve()).then(read, read);
  holder.paramoMailQueue = next.catch(() => {});
  return next;
}

/** Run from source there is no thread, and what comes is read in place. */
const hasThread = (): boolean => process.env.NODE_ENV === 'production' && existsSync(script());

/** Reads a mail; what goes beyond the thread's bounds comes as what its header says, marked. */
export async function readMailInWorker(bytes: Uint8Array): Promise<ReadMail> {
  if (!hasThread()) return readMail(bytes);
  return (await beside<ReadMail>({ kind: 'mail', bytes })) ?? readHead(bytes);
}

/** Reads the calendar parts of a mail, once for each clock; `null` for what goes beyond the thread's bounds. */
export async function readInvitationsInWorker(
  parts: readonly string[],
  sender: string,
  clocks: readonly string[],
): Promise<Invited | null> {
  if (parts.length === 0 || clocks.length === 0) return {};
  return hasThread()
    ? beside<Invited>({ kind: 'invitations', parts, sender, clocks })
    : readInvitations(parts, sender, clocks);
}
