import { type MessagePort, parentPort } from 'node:worker_threads';
import { readMail } from './read-mail.ts';

/* A thread that reads mail from outside, so that none of it makes a request wait. */

const main = parentPort as MessagePort;
main.on('message', async ({ id, bytes }: { id: number; bytes: Uint8Array }) => {
  main.postMessage({ id, mail: await readMail(bytes) });
});
