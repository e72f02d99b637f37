import type { Answer, Attendee, Party, WrittenFields } from '@/core/calendar/index.ts';
import type { UnmodelledLine } from '@/core/formats/index.ts';

/** An item as it is kept: what is written of it, by the table of fields, and what comes of that. `start` and `end` are epoch milliseconds, or day starts as if UTC where `allDay`. */
export interface StoredItem extends WrittenFields {
  readonly id: number;
  readonly key: string;
  readonly calendarId: number;
  readonly uid: string;
  /** The series this item replaces one occurrence of, and that occurrence's wall-clock text. */
  readonly seriesId: number | null;
  readonly recurrence: string | null;
  readonly start: number;
  readonly end: number;
  readonly allDay: boolean;
  readonly zone: string;
  /** The zone on whose clock it ends, where that is another: a journey. Never where all day. */
  readonly endZone: string | null;
  /** The start on its zone's clock, where the clocks leave that out: a series goes on from there, not from where it was moved to. */
  readonly wall: number | null;
  /** How many whole days of the clock its length holds; the rest of it is exact. */
  readonly days: number;
  readonly rule: string | null;
  readonly added: readonly string[];
  readonly left: readonly string[];
  readonly cancelled: boolean;
  readonly ownerAnswer: Answer | null;
  readonly organiser: Party | null;
  readonly attendees: readonly Attendee[];
  readonly ownerInvited: boolean;
  /** Of a hold: the set of times it is one of, and when it frees itself (epoch milliseconds). */
  readonly holdSet: number | null;
  readonly lapsesAt: number | null;
  readonly sequence: number;
  readonly version: number;
  readonly createdBy: number;
  readonly createdFor: number;
  readonly createdAt: number;
  readonly changedBy: number;
  readonly changedFor: number;
  readonly changedAt: number;
  readonly removedAt: number | null;
  /** What a calendar file said of it that isn't modelled. */
  readonly kept: readonly UnmodelledLine[];
  /** The act that brought it in with a file. */
  readonly batch: number | null;
}
