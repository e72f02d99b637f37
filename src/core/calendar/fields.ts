import { z } from 'zod';

/** Item kinds. `whereabouts` only says where someone is and never blocks time; `hold` keeps time for something not yet fixed. */
export const KINDS = ['meeting', 'focus', 'whereabouts', 'travel', 'hold', 'errand'] as const;
/** Status of an item, in the words of iCalendar's FBTYPE; `away` is its BUSY-UNAVAILABLE. */
export const STATUSES = ['free', 'tentative', 'busy', 'away'] as const;
/** Visibility of one item beside the sharing of its calendar. */
export const VISIBILITIES = ['follow', 'open', 'outline', 'private'] as const;
/** PARTSTAT of RFC 5545 3.2.12, as far as it is used for meetings. */
export const ANSWERS = ['needs-action', 'accepted', 'declined', 'tentative'] as const;
export const IMPORTANCES = ['low', 'normal', 'high'] as const;

export type Kind = (typeof KINDS)[number];
export type Status = (typeof STATUSES)[number];
export type Visibility = (typeof VISIBILITIES)[number];
export type Answer = (typeof ANSWERS)[number];
export type Importance = (typeof IMPORTANCES)[number];

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
  days: 1100,
  /** Dates added to a series, and left out of it. */
  dates: 2000,
} as const;

// Line breaks and tabs may stand in longer texts; every other control character is refused.
// biome-ignore lint/suspicious/noControlCharactersInRegex: exactly these are refused
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/;
const line = (max: number) =>
  z
    .string()
    .trim()
    .max(max, `tooLong:${max}`)
    .refine((s) => !CONTROL.test(s) && !/[\r\n\t]/.test(s), 'control');
const text = (max: number) =>
  z
    .string()
    .max(max, `tooLong:${max}`)
    .refine((s) => !CONTROL.test(s), 'control')
    // One kind of line end, so that nothing that is written from it can begin a line of its own.
    .transform((s) => s.replace(/\r\n?/g, '\n'));

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

/** Every field a person may write on an item, with its limits. Messages are codes that screens turn into sentences. */
export const itemFields = {
  title: line(LIMITS.title).min(1, 'titleMissing'),
  kind: z.enum(KINDS),
  place: line(LIMITS.place).nullable(),
  notes: text(LIMITS.notes).nullable(),
  link: z
    .string()
    .trim()
    .max(LIMITS.link, `tooLong:${LIMITS.link}`)
    .refine((s) => /^https?:\/\/[^\s/]+/i.test(s), 'link')
    .nullable(),
  categories: z.array(line(LIMITS.category).min(1)).max(LIMITS.categories),
  importance: z.enum(IMPORTANCES),
  shows: z.enum(STATUSES),
  visibility: z.enum(VISIBILITIES),
  briefing: text(LIMITS.briefing).nullable(),
} as const;
