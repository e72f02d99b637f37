// @ts-check
import { workerData } from 'node:worker_threads';
import { load } from './built.mjs';

/* What a thread begins with: the built script that is named to it, and what the engine made of that. */
load(workerData);
