import type { Answer, SaidField, WrittenFields } from '../calendar/index.ts';

/** When a meeting takes place, as its item has it: texts, so that two of them are the same where they read the same. */
export interface MeetingTime {
  readonly start: string;
  readonly end: string;
  readonly allDay: boolean;
  readonly zone: string;
  readonly rule: string | null;
  readonly added: readonly string[];
  readonly left: readonly string[];
}

/** What a meeting is about, as everybody on it may know it. Nothing of anybody's own copy is among it. */
export type MeetingMatter = Pick<WrittenFields, SaidField>;

/**
 * What is said of a meeting in the place of its own words: of each field what it was when that was decided, and what is said for it as long as
 * it stays so.
 */
export type Cover = {
  readonly [K in 'title' | 'place' | 'notes']?: { readonly own: MeetingMatter[K]; readonly said: MeetingMatter[K] };
};

/** What of a meeting is said, with what covers some of its words. */
export function saidOf(matter: MeetingMatter, cover: Cover | null): MeetingMatter {
  const { title, place, notes } = cover ?? {};
  return {
    ...matter,
    ...(title && title.own === matter.title ? { title: title.said } : {}),
    ...(place && place.own === matter.place ? { place: place.said } : {}),
    ...(notes && notes.own === matter.notes ? { notes: notes.said } : {}),
  };
}

/** Somebody asked: `must` where the meeting can't do without them. Rooms and things answer for themselves. */
export interface Invited {
  readonly address: string;
  readonly name: string | null;
  readonly role: 'must' | 'may';
  readonly kind: 'person' | 'group' | 'room' | 'thing';
  /** Who was asked first and sends them instead (RFC 5545, 3.2.4). */
  readonly delegatedFrom?: string;
  /** The group they are asked as one of, by its key: whoever is in it is asked. Nobody outside hears of it. */
  readonly group?: string;
}

/** Somebody asked as a message names them: with what they answered, and whom they send instead (RFC 5545, 3.2.5). */
export type Listed = Invited & { readonly answer: Answer; readonly delegatedTo?: string };

/**
 * How far a message has come among those about one meeting: SEQUENCE first, then when it was made (RFC 5546, 2.1.5). `stamp` is epoch
 * milliseconds.
 */
export interface Revision {
  readonly sequence: number;
  readonly stamp: number;
}

/** An answer as it was given: to which state of the meeting, when, by whom where that is somebody who acts, and with which words. */
export interface Given extends Revision {
  readonly answer: Answer;
  readonly comment: string | null;
  readonly sentBy: string | null;
  /** Who comes instead: they themselves don't. */
  readonly delegatedTo?: string;
}

/** What is said of one meeting, or of one occurrence of it (`recurrence`, its wall-clock text; `null` for the whole). */
interface About extends Revision {
  readonly uid: string;
  readonly recurrence: string | null;
  readonly organiser: string;
  /** The address it came from, and who sent it in that one's name. */
  readonly sender: string;
  readonly sentBy: string | null;
  /**
   * That `sender` may speak for whom the message names, though the address is another's. Never read from a message: set by whoever takes it in,
   * on proof of their own, or because a person says so.
   */
  readonly authorised?: true;
}

/** What a meeting is, as a message says it. */
interface Calling<M extends string> {
  readonly method: M;
  readonly time: MeetingTime;
  readonly matter: MeetingMatter;
  readonly invited: readonly Listed[];
  /** How its organiser classifies it (RFC 5545, 3.8.1.3), where that isn't public: the copy of whoever is asked begins so. */
  readonly classification?: Classification;
}

export type Classification = 'private' | 'confidential';

/** A scheduling message (RFC 5546, 1.4). `to` are the addresses it goes to. */
export type Message = About & { readonly to: readonly string[] } & (
    | Calling<'REQUEST'>
    | Calling<'PUBLISH'>
    | Calling<'ADD'>
    | { readonly method: 'CANCEL' }
    | {
        readonly method: 'REPLY';
        readonly attendee: string;
        readonly answer: Answer;
        readonly comment: string | null;
        /** Whom they send instead; their answer is then that they themselves don't come. */
        readonly delegatedTo?: { readonly address: string; readonly name: string | null };
        /** Who sends them. */
        readonly delegatedFrom?: string;
      }
    | {
        readonly method: 'COUNTER';
        readonly attendee: string;
        readonly time: MeetingTime;
        readonly comment: string | null;
      }
    | { readonly method: 'DECLINECOUNTER'; readonly comment: string | null }
    | { readonly method: 'REFRESH'; readonly attendee: string }
  );

/** Negative where `a` is older than `b`, positive where it is newer; nothing decides between two made at the same instant. */
export const compareRevisions = (a: Revision, b: Revision): number => a.sequence - b.sequence || a.stamp - b.stamp;

export const sameTime = (a: MeetingTime, b: MeetingTime): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Whether two times ask the same of somebody who answered one of them: they begin and end alike. Where a series stops, and what is left
 * out of it, is another thing.
 */
export function sameHours(a: MeetingTime, b: MeetingTime): boolean {
  const hours = (t: MeetingTime) => ({ ...t, left: [], rule: t.rule?.replace(/;?(?:UNTIL|COUNT)=[^;]*/g, '') ?? null });
  return sameTime(hours(a), hours(b));
}

/** Addresses are the same whatever the case of their letters. */
export const sameAddress = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();
