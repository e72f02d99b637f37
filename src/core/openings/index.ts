export { brokenKeeps } from './broken-keeps.ts';
export { journeyMinutes, samePlace } from './journeys.ts';
export { makeRoom } from './make-room.ts';
export { rankRuns, WEIGHTS } from './rank.ts';
export type { Keep, Movable, OpeningsPerson, OpeningsRequest } from './request.ts';
export { findOpenings } from './search.ts';
