import { useLayoutEffect, useRef, useState } from 'react';

/**
 * One function for as long as the component stands, which does what the latest `act` does: so that what is drawn from it isn't drawn again
 * because its owner was. For events only: it must not be called while drawing.
 */
export function useStable<A extends readonly unknown[], R>(act: (...args: A) => R): (...args: A) => R {
  const latest = useRef(act);
  useLayoutEffect(() => {
    latest.current = act;
  });
  const [stable] = useState(
    () =>
      (...args: A): R =>
        latest.current(...args),
  );
  return stable;
}
