import { useEffect } from 'react';
import { isSpokenFor } from '../common/keys.ts';

/** What the keys of the Desk do. */
export interface DeskKeys {
  readonly move: (by: -1 | 1) => void;
  readonly step: (n: number) => void;
  readonly later: () => void;
  readonly pass: () => void;
  readonly undo: () => void;
  readonly open: () => void;
  readonly pick: () => void;
  readonly pickAll: () => void;
  readonly help: () => void;
  readonly close: () => void;
}

/** Hears the keys of the Desk, wherever nothing is typed. */
export function useDeskKeys(keys: DeskKeys): void {
  useEffect(() => {
    const on = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !event.defaultPrevented) return keys.close();
      if (isSpokenFor(event)) return;
      const does = new Map<string, () => void>([
        ['ArrowUp', () => keys.move(-1)],
        ['ArrowDown', () => keys.move(1)],
        ['l', keys.later],
        ['p', keys.pass],
        ['u', keys.undo],
        ['o', keys.open],
        ['x', keys.pick],
        ['a', keys.pickAll],
        ['?', keys.help],
      ]);
      const digit = /^[1-4]$/.test(event.key) ? Number(event.key) : null;
      const doing = digit === null ? does.get(event.key) : () => keys.step(digit);
      if (!doing) return;
      event.preventDefault();
      doing();
    };
    window.addEventListener('keydown', on);
    return () => window.removeEventListener('keydown', on);
  });
}
