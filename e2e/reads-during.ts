import { expect } from 'vitest';
import { Caller } from './caller.ts';

/** The key of somebody's calendar, as the viewer finds it. */
export async function calendarOf(caller: Caller, handle: string): Promise<string> {
  const frame = await caller.json<{ principals: { handle: string; calendar: string }[] }>('/api/frame');
  return frame.principals.find((p) => p.handle === handle)?.calendar ?? '';
}

/** How long somebody else's reads took while a work went on, in milliseconds. */
export interface ReadsDuring {
  readonly p95: number;
  readonly most: number;
  readonly count: number;
  readonly took: number;
}

/** Reads another calendar over and over until a work ends. */
export async function readsDuring(address: string, work: () => Promise<unknown>): Promise<ReadsDuring> {
  const kofi = await Caller.stepIn(address, 'kofi');
  const path = `/api/calendars/${await calendarOf(kofi, 'kofi')}/items?from=2027-03-01&to=2027-03-08&zone=Europe%2FLisbon`;
  await kofi.send('GET', path);
  const times: number[] = [];
  let over = false;
  const reading = (async () => {
    while (!over) {
      const begun = performance.now();
      expect((await kofi.send('GET', path)).status).toBe(200);
      times.push(performance.now() - begun);
      await new Promise((go) => setTimeout(go, 15));
    }
  })();
  const begun = performance.now();
  await work().finally(() => {
    over = true;
  });
  const took = performance.now() - begun;
  await reading;
  times.sort((a, b) => a - b);
  return { p95: times[Math.floor(times.length * 0.95)] ?? 0, most: times.at(-1) ?? 0, count: times.length, took };
}
