export { deskOf } from './desk.ts';
export { DESK_KINDS, type DeskFacts, type DeskItem, type DeskPrincipal } from './facts.ts';
