import { parentPort } from 'node:worker_threads';
import type { Asked, Ended } from '../workers/thread.ts';
import { type ForMailThread, readHere } from './read-in-worker.ts';

/* A thread that reads mail from outside, so that none of it makes a request wait. */

const main = parentPort;
// The build loads this script too, to keep what the engine makes of it: there it is no thread.
main?.on('message', async ({ id, work }: Asked<ForMailThread>) => {
  main.postMessage({ id, result: await readHere(work) } satisfies Ended);
});
