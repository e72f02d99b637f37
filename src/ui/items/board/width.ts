'use client';
import { type RefObject, useEffect, useRef, useState } from 'react';

/** How many pixels wide something is, as it stands: what is beside it takes of its room. `null` before that is known. */
export function useWidth(): readonly [RefObject<HTMLDivElement | null>, number | null] {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState<number | null>(null);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => setWidth(entry?.contentRect.width ?? null));
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  return [box, width];
}
