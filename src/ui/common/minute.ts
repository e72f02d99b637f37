import { useEffect, useState } from 'react';

/** The instant it is, by the minute: what shows where the clock stands is drawn again as it moves on. Milliseconds since 1970. */
export function useMinute(now: () => number): number {
  const [at, setAt] = useState(now);
  useEffect(() => {
    const timer = setTimeout(() => setAt(now()), 60_000 - (now() % 60_000));
    return () => clearTimeout(timer);
  });
  return at;
}
