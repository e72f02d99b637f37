'use client';
import { type TouchEvent, useRef } from 'react';

/** A finger that goes this far across, and not half as far up or down, within this time, swipes. */
const FAR_PX = 60;
const SOON_MS = 500;

/** Swiping across something goes back or on; a finger that stays first, or two of them, do what they do anyway. */
export function useSwipe(goes: { readonly back: () => void; readonly on: () => void } | null) {
  const from = useRef<{ x: number; y: number; at: number } | null>(null);
  if (!goes) return {};
  return {
    onTouchStart: (event: TouchEvent) => {
      const touch = event.touches[0];
      from.current =
        touch && event.touches.length === 1 ? { x: touch.clientX, y: touch.clientY, at: event.timeStamp } : null;
    },
    onTouchEnd: (event: TouchEvent) => {
      const began = from.current;
      const touch = event.changedTouches[0];
      from.current = null;
      if (!began || !touch || event.timeStamp - began.at > SOON_MS) return;
      const [x, y] = [touch.clientX - began.x, touch.clientY - began.y];
      if (Math.abs(x) < FAR_PX || Math.abs(y) > Math.abs(x) / 2) return;
      // What scrolls across by itself keeps the finger.
      if ((event.target as HTMLElement).closest('[data-across]')) return;
      if (x > 0) goes.back();
      else goes.on();
    },
  };
}
