import { type MessagePort, parentPort } from 'node:worker_threads';
import { type ForMailThread, readHere } from './read-in-worker.ts';

/* A thread that reads mail from outside, so that none of it makes a request wait. */

const main = parentPort as MessagePort;
main.on('message', async ({ id, what }: { id: number; what: ForMailThread }) => {
  main.postMessage({ id, read: await readHere(what) });
});
