import { gridStarts } from './clock.ts';
import { type Ready, ready } from './person.ts';
import type { OpeningsPerson, OpeningsRequest } from './request.ts';

/** Steps of the grid that are counted at most. */
const MOST_STEPS = 50_000;

/**
 * How many of those who are known can come, step by step of the request's grid: at each step (epoch minutes, in order) those of whom no hard
 * time meets it and, where hours are kept to, who work all of it. Padding, journeys and preferences have no part in it.
 */
export function howManyCan(
  request: OpeningsRequest,
  people: readonly OpeningsPerson[],
): { readonly steps: readonly number[]; readonly can: Uint8Array } {
  const { starts } = gridStarts(request.zone, request.grid, request.from, request.until - request.grid, MOST_STEPS);
  const can = new Uint8Array(starts.length);
  for (const person of people) if (person.known) countIn(can, starts, request, ready(person, request));
  return { steps: starts, can };
}

/** Walks the steps and somebody's time side by side: both are in order. */
function countIn(can: Uint8Array, steps: readonly number[], { grid, within }: OpeningsRequest, one: Ready): void {
  const open = within === 'hours' ? one.open : null;
  let h = 0;
  let o = 0;
  for (let i = 0; i < steps.length; i++) {
    const from = steps[i] as number;
    const to = from + grid;
    while (h < one.hard.length && (one.hard[h]?.[1] ?? 0) <= from) h++;
    if ((one.hard[h]?.[0] ?? Number.POSITIVE_INFINITY) < to) continue;
    if (open !== null) {
      while (o < open.length && (open[o]?.[1] ?? 0) <= from) o++;
      const [a, b] = open[o] ?? [Number.POSITIVE_INFINITY, 0];
      if (a > from || b < to) continue;
    }
    can[i] = (can[i] ?? 0) + 1;
  }
}
