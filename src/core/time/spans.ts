/** A stretch of time, `[from, to)`, in whatever unit all of a list are in. */
export type Span = readonly [number, number];

/** Intervals in order, those that touch or overlap joined, empty ones left out. */
export function merged(list: readonly Span[]): Span[] {
  const sorted = list.filter(([a, b]) => a < b).sort((x, y) => x[0] - y[0]);
  const out: [number, number][] = [];
  for (const [a, b] of sorted) {
    const last = out.at(-1);
    if (last && a <= last[1]) last[1] = Math.max(last[1], b);
    else out.push([a, b]);
  }
  return out;
}
