import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { readFile, type WorkerAnswer, type WorkerJob } from './read-file.ts';

const LONGEST_MS = 20_000;

/** Reads a calendar file off the request's thread; one that takes longer than 20 seconds is given up. */
export async function readInWorker(bytes: Uint8Array, job: Omit<WorkerJob, 'bytes'>): Promise<WorkerAnswer> {
  const script = join(process.cwd(), 'dist/workers/read-file-worker.mjs');
  // Run from source (development, unit tests) there is no built worker; the answer is the same, on this thread.
  if (!existsSync(script)) return readFile({ ...job, bytes });
  return new Promise((resolve, reject) => {
    // Asked of the process, so that no bundler takes the script for a module of its own.
    const { Worker } = process.getBuiltinModule('node:worker_threads');
    const worker = new Worker(script, {
      workerData: { ...job, bytes } satisfies WorkerJob,
      resourceLimits: { maxOldGenerationSizeMb: 512 },
    });
    const giveUp = () => {
      resolve({ kind: 'refused', code: 'fileTookTooLong' });
      void worker.terminate();
    };
    const timer = setTimeout(giveUp, LONGEST_MS);
    worker.once('message', (answer: WorkerAnswer) => {
      clearTimeout(timer);
      resolve(answer);
    });
    worker.once('error', (error: NodeJS.ErrnoException) => {
      clearTimeout(timer);
      if (error.code === 'ERR_WORKER_OUT_OF_MEMORY') giveUp();
      else reject(error);
    });
  });
}
