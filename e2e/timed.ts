import { expect } from 'vitest';

/**
 * Holds a claim about speed where the machine is there for that alone (`npm run test:browser -- NAME`, `npm run attack`); in a run of
 * everything, in which other work stands beside it, what was measured is only said.
 */
export function takesAtMost(what: string, ms: number, most: number): void {
  console.log(`${what}: ${Math.round(ms)} ms, of ${most} at most`);
  if (process.env.PARAMO_TIMED === '1') expect(ms).toBeLessThan(most);
}

/**
 * Whether one of two ways takes longer than the other, by pairs that were measured one after the other: how likely so uneven a count of
 * pairs is where neither does (sign test, two-sided, by the normal approximation; equal pairs count half to each).
 */
export function chanceOfNoDifference(pairs: readonly (readonly [number, number])[]): number {
  const wins = pairs.reduce((sum, [a, b]) => sum + (a > b ? 1 : a === b ? 0.5 : 0), 0);
  const z = Math.abs(wins - pairs.length / 2) / Math.sqrt(pairs.length / 4);
  // Twice the upper tail of the normal distribution (Abramowitz and Stegun 7.1.26), good to 1e-7.
  const t = 1 / (1 + (0.3275911 * z) / Math.SQRT2);
  const poly = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  return poly * Math.exp((-z * z) / 2);
}
