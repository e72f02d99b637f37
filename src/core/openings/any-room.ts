import type { Journey, OpeningsPerson, OpeningsRequest } from './request.ts';
import { findOpenings } from './search.ts';

/**
 * Which room each opening could be had in: the first of `rooms` that is an opening there too, as one who has to be there is. Openings in
 * which none is free aren't in the answer. Rule by rule a start is one for each `must` alone, so every room is searched once.
 */
export function roomFor(
  request: OpeningsRequest,
  starts: readonly number[],
  rooms: readonly OpeningsPerson[],
  journeys: readonly Journey[],
): ReadonlyMap<number, string> {
  const left = new Set(starts);
  const found = new Map<number, string>();
  for (const room of rooms) {
    if (left.size === 0) break;
    // A room has no whereabouts: it is never asked to be at a place.
    for (const start of findOpenings({ ...request, at: [] }, [{ ...room, need: 'must' }], journeys).starts)
      if (left.delete(start)) found.set(start, room.id);
  }
  return found;
}
