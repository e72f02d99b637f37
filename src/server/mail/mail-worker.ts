import { parentPort } from 'node:worker_threads';
import type { Ended, QueuedJob } from '../workers/thread.ts';
import { type ForMailThread, readHere } from './read-in-worker.ts';

/* A thread that reads mail from outside, so that none of it makes a request wait. */

// The build runs this script as well, to make its code cache; it is no thread then.
parentPort?.on('message', async ({ id, work }: QueuedJob<ForMailThread>) => {
  parentPort?.postMessage({ id, result: await readHere(work) } satisfies Ended);
});
