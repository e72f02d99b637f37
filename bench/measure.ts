/** The middle of some times, in milliseconds, and the 95th of a hundred. */
export interface Times {
  readonly median: number;
  readonly p95: number;
}

/**
 * Runs pieces of work turn by turn, so that whatever else the machine does falls on all of them alike; answers each one's
 * times. The first tenth of the rounds warms up and isn't counted.
 */
export function sideBySide<K extends string>(rounds: number, work: Record<K, () => unknown>): Record<K, Times> {
  const names = Object.keys(work) as K[];
  const times = Object.fromEntries(names.map((name) => [name, [] as number[]])) as Record<K, number[]>;
  for (let round = 0; round < rounds; round++)
    for (const name of names) {
      const started = performance.now();
      work[name]();
      if (round >= rounds / 10) times[name].push(performance.now() - started);
    }
  return summed(names, times);
}

/** The same for work that waits: each piece is over before the next begins. */
export async function sideBySideAsync<K extends string>(
  rounds: number,
  work: Record<K, () => Promise<unknown>>,
): Promise<Record<K, Times>> {
  const names = Object.keys(work) as K[];
  const times = Object.fromEntries(names.map((name) => [name, [] as number[]])) as Record<K, number[]>;
  for (let round = 0; round < rounds; round++)
    for (const name of names) {
      const started = performance.now();
      await work[name]();
      if (round >= rounds / 10) times[name].push(performance.now() - started);
    }
  return summed(names, times);
}

/** The value at or below which that share of a sorted list lies. */
export const at = (list: readonly number[], part: number): number =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * part))] ?? 0;

function summed<K extends string>(names: readonly K[], times: Record<K, number[]>): Record<K, Times> {
  return Object.fromEntries(
    names.map((name) => [name, { median: at(times[name], 0.5), p95: at(times[name], 0.95) }]),
  ) as Record<K, Times>;
}

const ms = (n: number): string => (n < 1 ? `${(n * 1000).toFixed(0)} µs` : `${n.toFixed(2)} ms`);

/** One line of the report: what was measured, its floor, and how many times as long it took. */
export function line(what: string, got: Times, floor: Times): string {
  return `${what.padEnd(62)} ${ms(got.median).padStart(9)}  floor ${ms(floor.median).padStart(9)}  ${(got.median / floor.median).toFixed(2)}x`;
}
