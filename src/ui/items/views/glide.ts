'use client';
import { type RefObject, useLayoutEffect, useRef } from 'react';
import { MOTION_MS, mayMove } from '../../common/motion.ts';

/** More than these at once is another picture, and not something that went somewhere. */
const MOST = 40;

/** Where a block stands: in which column or row of a view, and how far along it. */
export interface Place {
  readonly lane: number;
  readonly along: number;
}

/** A press that was dragged has been followed by the eye already. */
export type Carried = RefObject<string | null>;

/**
 * Blocks go where they went: what stands elsewhere than before, by whoever's hand, glides there from its old place. `view` names what is
 * shown; in another view nothing glides. `at` says where a place is on the screen, in pixels.
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
