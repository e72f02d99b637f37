export { roomFor } from './any-room.ts';
export { brokenKeeps } from './broken-keeps.ts';
export { howManyCan } from './how-many.ts';
export { findSeriesOpenings } from './in-series.ts';
export { journeyMinutes, samePlace } from './journeys.ts';
export { makeRoom } from './make-room.ts';
export { rankRuns, WEIGHTS } from './rank.ts';
export type { Keep, Movable, OpeningsPerson, OpeningsRequest } from './request.ts';
export { findOpenings } from './search.ts';
