import { breaksKeep } from './keeps.ts';
import { ready } from './person.ts';
import type { Keep, OpeningsPerson, OpeningsRequest } from './request.ts';

/** The standing wishes of somebody that a meeting `[from, to)` (epoch minutes) would break, as rule 7 reads them, hard and soft alike. */
export function brokenKeeps(person: OpeningsPerson, request: OpeningsRequest, from: number, to: number): Keep[] {
  const { hard } = ready(person, request);
  return person.keeps.filter((keep) => breaksKeep(keep, person.zone, hard, from, to));
}
