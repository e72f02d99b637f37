import type { ContentField, FieldName, SeenValue, WrittenField } from './item-fields.ts';
import type { Answer, Attendee, Party } from './kinds.ts';

/** A repeat as the format writes it: the RRULE's value or null, and added and left-out starts in wall-clock text. */
export interface Repeats {
  readonly rule: string | null;
  readonly added: readonly string[];
  readonly left: readonly string[];
}

/** The fields of an item that aren't written as they are, but come of its times, its meeting and who made it. */
interface MadeFields<P, A> {
  readonly start: string;
  readonly end: string;
  readonly allDay: boolean;
  readonly organiser: P | null;
  readonly attendees: readonly A[] | null;
  readonly repeats: Repeats | string | null;
  readonly createdBy: P | string | null;
  readonly cancelled: boolean;
  readonly ownerAnswer?: Answer | null;
}

/**
 * One occurrence of an item, as it stands in the owner's calendar. `start` and `end` are instants (`...Z`) or, where
 * `allDay`, dates with the end not included. The fields an access decision reads are plain; nothing here is cut yet.
 */
export type Item<P = Party, A = Attendee> = MadeFields<P, A> & {
  readonly [K in ContentField]: SeenValue<K>;
};
/** A field of the table that is neither written nor made doesn't compile. */
null satisfies Exclude<FieldName, keyof Item | WrittenField> extends never ? null : never;
