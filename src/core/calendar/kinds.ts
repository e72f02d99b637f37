/** Item kinds. `whereabouts` only says where someone is and never blocks time; `hold` keeps time for something not yet fixed. */
export const KINDS = ['meeting', 'focus', 'whereabouts', 'travel', 'hold', 'errand'] as const;
/**
 * Status of an item, in the words of iCalendar's FBTYPE; `away` is its BUSY-UNAVAILABLE. `reachable` is away and to be had all the same: it is seen
 * where time is, and takes none.
 */
export const STATUSES = ['free', 'reachable', 'tentative', 'busy', 'away'] as const;
/** Visibility of one item beside the sharing of its calendar. */
export const VISIBILITIES = ['follow', 'open', 'outline', 'private'] as const;
/** PARTSTAT of RFC 5545 3.2.12, as far as it is used for meetings. */
export const ANSWERS = ['needs-action', 'accepted', 'declined', 'tentative'] as const;
export const IMPORTANCES = ['low', 'normal', 'high'] as const;

export type Kind = (typeof KINDS)[number];
export type Status = (typeof STATUSES)[number];
export type Visibility = (typeof VISIBILITIES)[number];
export type Answer = (typeof ANSWERS)[number];

/** The longest texts and lists an item may carry, in UTF-16 units and entries. */
export const LIMITS = {
  title: 300,
  place: 300,
  notes: 20_000,
  briefing: 20_000,
  link: 2000,
  attendees: 500,
  /** People that one act may ask; a file may bring more. */
  invited: 200,
  categories: 20,
  category: 60,
  name: 120,
  address: 254,
  phone: 40,
  days: 1100,
  /** Dates added to a series, and left out of it. */
  dates: 2000,
} as const;

/** A person named on an item: their address (or whatever a file named them by), and the name it came with. */
export interface Party {
  readonly name: string | null;
  readonly address: string;
}

/** Somebody asked. How, where that isn't simply a person who has to be there; and who answered for them, by address. */
export interface Attendee extends Party {
  readonly answer: Answer;
  readonly role?: 'may';
  readonly kind?: 'group' | 'room' | 'thing';
  readonly by?: string;
}
