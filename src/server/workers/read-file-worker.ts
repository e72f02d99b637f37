import { parentPort, workerData } from 'node:worker_threads';
import { readFile, type WorkerJob } from './read-file.ts';

parentPort?.postMessage(readFile(workerData as WorkerJob));
