/** Counts tries by name in a window of time, in memory. */
export interface Limiter {
  may(name: string, at: number): boolean;
  count(name: string, at: number): void;
  clear(name: string): void;
}

const MOST_NAMES = 50_000;

/** A limiter that allows `most` counted tries in `windowMs` for each name. */
export function limiter(most: number, windowMs: number): Limiter {
  const tries = new Map<string, number[]>();
  const recent = (name: string, at: number) => (tries.get(name) ?? []).filter((t) => at - t < windowMs);
  return {
    may: (name, at) => recent(name, at).length < most,
    count: (name, at) => {
      if (tries.size > MOST_NAMES) tries.clear();
      tries.set(name, [...recent(name, at), at]);
    },
    clear: (name) => {
      tries.delete(name);
    },
  };
}
