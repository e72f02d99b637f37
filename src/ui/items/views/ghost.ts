import { useState, useSyncExternalStore } from 'react';

/** A time on the board while something is drawn or moved, in wall-clock milliseconds. */
export interface Ghost {
  readonly start: number;
  readonly end: number;
  readonly title: string;
  readonly clashes: string | null;
  /** The lane it lies in, or that it lies in all; and whose it is where it comes from another. */
  readonly lane: number | 'all';
  readonly goes?: string | null;
}

/** The ghost of a board, beside what is drawn: only the place it is in and the one it leaves are drawn again as it moves. */
export interface GhostStore {
  now: () => Ghost | null;
  show: (ghost: Ghost | null) => void;
  hear: (changed: () => void) => () => void;
}

export function useGhostStore(): GhostStore {
  const [store] = useState(newStore);
  return store;
}

function newStore(): GhostStore {
  let now: Ghost | null = null;
  const hearing = new Set<() => void>();
  return {
    now: () => now,
    show: (ghost) => {
      if (ghost === now || (ghost && now && same(ghost, now))) return;
      now = ghost;
      for (const changed of hearing) changed();
    },
    hear: (changed) => {
      hearing.add(changed);
      return () => {
        hearing.delete(changed);
      };
    },
  };
}

const same = (a: Ghost, b: Ghost): boolean =>
  a.start === b.start && a.end === b.end && a.lane === b.lane && a.title === b.title && a.clashes === b.clashes;

/** The ghost, where it begins in a lane between two walls. */
export function useGhostIn(store: GhostStore, lane: number, from: number, until: number): Ghost | null {
  const here = () => {
    const ghost = store.now();
    return ghost && (ghost.lane === lane || ghost.lane === 'all') && ghost.start >= from && ghost.start < until
      ? ghost
      : null;
  };
  return useSyncExternalStore(store.hear, here, () => null);
}
