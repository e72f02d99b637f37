import { settings } from './settings.ts';

// Threads beside this one go by the same start.
process.env.PARAMO_STARTED_AT ??= String(Date.now());
const startedAt = Number(process.env.PARAMO_STARTED_AT);

/** Now, in epoch milliseconds; in the demo it may start from a set instant, and runs on from there. */
export function now(): number {
  const { clock } = settings();
  return clock === null ? Date.now() : clock + (Date.now() - startedAt);
}
