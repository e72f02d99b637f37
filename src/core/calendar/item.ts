import type { Answer, Attendee, Importance, Kind, Party, Status, Visibility } from './kinds.ts';

/** A repeat as the format writes it: the RRULE's value or null, and added and left-out starts in wall-clock text. */
export interface Repeats {
  readonly rule: string | null;
  readonly added: readonly string[];
  readonly left: readonly string[];
}

/**
 * One happening of an item, as it stands in the owner's calendar. `start` and `end` are instants (`...Z`) or, where
 * `allDay`, dates with the end not included. The fields an access decision reads are plain; nothing here is cut yet.
 */
export interface Item<P = Party, A = Attendee> {
  readonly start: string;
  readonly end: string;
  readonly allDay: boolean;
  readonly shows: Status;
  readonly visibility: Visibility;
  readonly cancelled: boolean;
  /** The owner's own answer where the item is an invitation or a meeting; absent leaves `shows` as it is set. */
  readonly ownerAnswer?: Answer | null;
  readonly title: string | null;
  readonly kind: Kind | null;
  readonly place: string | null;
  readonly importance: Importance | null;
  readonly notes: string | null;
  readonly link: string | null;
  readonly organiser: P | null;
  readonly attendees: readonly A[] | null;
  readonly categories: readonly string[] | null;
  readonly repeats: Repeats | string | null;
  readonly createdBy: P | string | null;
  readonly briefing: string | null;
}
