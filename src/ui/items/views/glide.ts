'use client';
import { type RefObject, useLayoutEffect, useRef } from 'react';
import { MOTION_MS, mayMove } from '../../common/motion.ts';

/** With more than these at once it is another picture, and nothing glides. */
const MOST = 40;

/** Where a block stands: in which column or row of a view, and how far along it. */
export interface Place {
  readonly lane: number;
  readonly along: number;
}

/** The id of the block that was put down last: it is there already for whoever dragged it, and doesn't glide. */
export type Carried = RefObject<string | null>;

/**
 * Moves blocks smoothly: a block that stands elsewhere than at the last drawing glides there from its old place, whoever moved it. `view`
 * names what is shown; when that changes nothing glides. `at` says where a place is on the screen, in pixels.
 */
export function useGlide(
  places: ReadonlyMap<string, Place>,
  view: string,
  at: (place: Place) => { x: number; y: number } | null,
  within: RefObject<HTMLElement | null>,
  carried: Carried,
): void {
  const before = useRef<{ places: ReadonlyMap<string, Place>; view: string } | null>(null);
  useLayoutEffect(() => {
    const was = before.current;
    before.current = { places, view };
    if (was === null || was.view !== view || was.places === places || !mayMove()) return;
    const moved = [...places].flatMap(([id, to]) => {
      const from = was.places.get(id);
      return from && (from.lane !== to.lane || from.along !== to.along) ? [{ id, from, to }] : [];
    });
    if (moved.length > MOST) return;
    for (const { id, from, to } of moved) {
      if (carried.current === id) {
        carried.current = null;
        continue;
      }
      const [a, b] = [at(from), at(to)];
      const block = within.current?.querySelector(`[data-block="${CSS.escape(id)}"]`);
      if (!a || !b || !block) continue;
      block.animate(
        [
          { transform: `translate(${a.x - b.x}px, ${a.y - b.y}px)`, zIndex: 3 },
          { transform: 'none', zIndex: 3 },
        ],
        {
          duration: MOTION_MS,
          easing: 'ease-out',
        },
      );
    }
  });
}
