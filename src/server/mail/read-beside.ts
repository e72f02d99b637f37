import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Worker } from 'node:worker_threads';
import { type ReadMail, readHead, readMail } from './read-mail.ts';

const LONGEST_MS = 15_000;
const MEGABYTES = 512;
const script = (): string => join(process.cwd(), 'dist/workers/mail-worker.mjs');
const holder = globalThis as { paramoMailReader?: MailReader | null; paramoMailQueue?: Promise<unknown> };

/** One thread, and the mail it is reading. It ends with its first failure; the next mail begins another. */
class MailReader {
  private readonly worker: Worker;
  private next = 1;

  constructor() {
    const { Worker } = process.getBuiltinModule('node:worker_threads');
    this.worker = new Worker(script(), { resourceLimits: { maxOldGenerationSizeMb: MEGABYTES } });
    this.worker.unref();
  }

  read(bytes: Uint8Array): Promise<ReadMail | null> {
    const id = this.next++;
    const { worker } = this;
    return new Promise((resolve) => {
      const over = (mail: ReadMail | null) => {
        clearTimeout(timer);
        worker.off('message', hear).off('error', fail).off('exit', fail);
        if (!mail) {
          holder.paramoMailReader = null;
          void worker.terminate();
        }
        resolve(mail);
      };
      const hear = (said: { id: number; mail: ReadMail }) => said.id === id && over(said.mail);
      const fail = () => over(null);
      const timer = setTimeout(fail, LONGEST_MS);
      worker.on('message', hear).on('error', fail).on('exit', fail);
      worker.postMessage({ id, bytes });
    });
  }
}

/**
 * Reads a mail beside the thread that serves requests, one after the other, within bounds of time and memory: what goes beyond them comes
 * as what its header says, marked. Run from source there is no thread, and it is read in place.
 */
export function readMailBeside(bytes: Uint8Array): Promise<ReadMail> {
  if (process.env.NODE_ENV !== 'production' || !existsSync(script())) return readMail(bytes);
  const read = async () => {
    holder.paramoMailReader ??= new MailReader();
    return (await holder.paramoMailReader.read(bytes)) ?? readHead(bytes);
  };
  const next = (holder.paramoMailQueue ?? Promise.resolve()).then(read, read);
  holder.paramoMailQueue = next.catch(() => {});
  return next;
}
