export { daysOf } from './days.ts';
export { deskOf } from './desk.ts';
export {
  DESK_KINDS,
  type DeskAttendee,
  type DeskFacts,
  type DeskItem,
  type DeskKind,
  type DeskPrincipal,
  type DeskSaid,
} from './facts.ts';
export { compareRows } from './order.ts';
export type { DeskRow } from './row.ts';
