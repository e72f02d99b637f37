export { makeRoom, type Room } from './make-room.ts';
export type { Journey, Keep, Movable, OpeningsItem, OpeningsPerson, OpeningsRequest, Span } from './request.ts';
export { findOpenings, type Openings } from './search.ts';
