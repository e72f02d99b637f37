'use client';
import { useEffect } from 'react';

/** How long anything on the screen takes to arrive, in milliseconds. */
export const MOTION_MS = 140;

/** Whether things may move here: not where the system asks for less. */
export const mayMove = (): boolean => !window.matchMedia('(prefers-reduced-motion: reduce)').matches;

/**
 * Keeps where the last press was, with the pointer or by a key, as `--press-x` and `--press-y` in pixels: what opens comes from there
 * (`comes` in layout.css).
 */
export function usePressPoint(): void {
  useEffect(() => {
    const root = document.documentElement;
    const remember = (x: number, y: number) => {
      root.style.setProperty('--press-x', `${Math.round(x)}px`);
      root.style.setProperty('--press-y', `${Math.round(y)}px`);
    };
    const point = (event: PointerEvent) => remember(event.clientX, event.clientY);
    const key = ({ key }: KeyboardEvent) => {
      const on = document.activeElement;
      // While somebody types or walks a list nothing opens, and each stroke would have the whole page styled anew.
      if (!on || on === document.body || /^(?:Arrow|Tab|Shift|Control|Alt|Meta)/.test(key)) return;
      if (key !== 'Enter' && on.matches('input, textarea, [contenteditable="true"]')) return;
      const box = on.getBoundingClientRect();
      remember(box.x + box.width / 2, box.y + box.height / 2);
    };
    window.addEventListener('pointerdown', point, { capture: true, passive: true });
    window.addEventListener('keydown', key, { capture: true, passive: true });
    return () => {
      window.removeEventListener('pointerdown', point, { capture: true });
      window.removeEventListener('keydown', key, { capture: true });
    };
  }, []);
}
