// @ts-check
import { workerData } from 'node:worker_threads';
import { load } from './built.mjs';

/* Where every thread begins: it runs the built script whose path it was given, from that script's code cache. */
load(workerData);
