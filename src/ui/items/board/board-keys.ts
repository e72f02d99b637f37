'use client';
import { useEffect } from 'react';
import { isSpokenFor, TYPED_IN } from '../../common/keys.ts';

/** What the single keys of a board do, by key; Escape is left to what is open where `closes` says no. Control with Z and Y step back and on. */
export function useBoardKeys(
  keys: Readonly<Record<string, () => void>>,
  onEscape: (() => void) | null,
  step: (way: 'back' | 'on') => void,
) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const key = event.key.toLowerCase();
      if ((event.ctrlKey || event.metaKey) && !event.altKey) {
        if ((event.target as HTMLElement).closest(`${TYPED_IN}, [role="dialog"]`)) return;
        if (key !== 'z' && key !== 'y') return;
        event.preventDefault();
        step(key === 'y' || event.shiftKey ? 'on' : 'back');
        return;
      }
      if (isSpokenFor(event)) return;
      if (key === 'escape') onEscape?.();
      const act = keys[key];
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
}
