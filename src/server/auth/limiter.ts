/** Counts tries by name in a window of time, in memory. */
export interface Limiter {
  /** Counts a try; answers whether it may be made. Counted before it is made, so that many at once are many. */
  take(name: string, at: number): boolean;
  /** Gives a try back that was a right one. */
  give(name: string): void;
  clear(name: string): void;
}

const MOST_NAMES = 50_000;

/** A limiter that allows `most` tries in `windowMs` for each name. */
export function limiter(most: number, windowMs: number): Limiter {
  const tries = new Map<string, number[]>();
  return {
    take: (name, at) => {
      const recent = (tries.get(name) ?? []).filter((t) => at - t < windowMs);
      if (recent.length >= most) return false;
      // What was tried last stands last: the longest quiet is forgotten first.
      tries.delete(name);
      if (tries.size >= MOST_NAMES) tries.delete(tries.keys().next().value as string);
      tries.set(name, [...recent, at]);
      return true;
    },
    give: (name) => {
      tries.get(name)?.pop();
    },
    clear: (name) => {
      tries.delete(name);
    },
  };
}
