'use client';
import { type ComponentType, type ReactNode, useEffect, useState } from 'react';

const waiting: (() => Promise<unknown>)[] = [];
let idling = false;

/** Fetches what waits, one after the other, while the window has nothing better to do. */
function fetchIdly(): void {
  const next = waiting.shift();
  if (!next) {
    idling = false;
    return;
  }
  const idle = window.requestIdleCallback ?? ((then: () => void) => setTimeout(then, 200));
  idle(() => void next().then(fetchIdly, fetchIdly), { timeout: 4_000 });
}

/**
 * A part of a screen that loads later: its script is fetched after the screen stands, or as soon as it is drawn. Until then `place` is
 * shown, or nothing. Once fetched it is drawn at once. A failed fetch is tried again the next time it is drawn.
 */
export function later<P extends object>(
  load: () => Promise<ComponentType<P>>,
  /** What keeps its place until it is there, where something else would move when it comes. */
  place: ReactNode = null,
): ComponentType<P> {
  let Part: ComponentType<P> | null = null;
  const fetched = () =>
    load().then((part) => {
      Part = part;
    });
  if (typeof window !== 'undefined') {
    waiting.push(fetched);
    if (!idling) {
      idling = true;
      if (document.readyState === 'complete') fetchIdly();
      else window.addEventListener('load', fetchIdly, { once: true });
    }
  }
  // biome-ignore lint/correctness/noComponentHookFactories: made once for each part, where its module is read, never while drawing.
  return function Later(props: P) {
    const [, setHere] = useState(Part !== null);
    useEffect(() => {
      if (Part === null)
        void fetched().then(
          () => setHere(true),
          () => undefined,
        );
    }, []);
    return Part === null ? place : <Part {...props} />;
  };
}
