import { settings } from './settings.ts';

// Threads beside this one go by the same start.
process.env.PARAMO_STARTED_AT ??= String(Date.now());
/** When the clock started, as it is counted now: one for all bundles of the process. */
const holder = globalThis as { paramoStartedAt?: number };
holder.paramoStartedAt ??= Number(process.env.PARAMO_STARTED_AT);

/** Now, in epoch milliseconds; in the demo it may start from a set instant, and runs on from there. */
export function now(): number {
  const { clock } = settings();
  return clock === null ? Date.now() : clock + (Date.now() - (holder.paramoStartedAt ?? 0));
}

/**
 * Puts a clock that was set to an instant forward by milliseconds. Threads that run already don't hear of it; those that start from now on go by it.
 * Where the clock is the real one nothing changes.
 */
export function putForward(ms: number): void {
  holder.paramoStartedAt = (holder.paramoStartedAt ?? 0) - ms;
  process.env.PARAMO_STARTED_AT = String(holder.paramoStartedAt);
}
