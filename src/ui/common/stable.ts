import { useLayoutEffect, useRef, useState } from 'react';

/**
 * A function that stays the same object while the component lives and always runs the latest `act`, so that children which get it needn't
 * be drawn again. For event handlers only: it must not be called while rendering.
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
