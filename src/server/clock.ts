import { settings } from './settings.ts';

const startedAt = Date.now();

/** Now, in epoch milliseconds; in the demo it may start from a set instant, and runs on from there. */
export function now(): number {
  const { clock } = settings();
  return clock === null ? Date.now() : clock + (Date.now() - startedAt);
}
