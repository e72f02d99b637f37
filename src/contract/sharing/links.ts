import { z } from 'zod';
import { SIGHTS, type Sight } from '@/core/calendar/index.ts';
import { asOf, type ItemWire, itemWire, more, rangeQuery } from '../items/items.ts';
import { type WorkHours, workHours } from '../people/hours.ts';
import { at, done, type Routes } from '../route.ts';
import type { Version } from '../version.ts';

/** What whoever holds a link gets: whose calendar it is, and the items; nothing else of anybody. */
const linkItemsAnswer = z.strictObject({
  owner: z.string(),
  calendar: z.string(),
  zone: z.string(),
  /** The first day that isn't shown any more. */
  ends: z.string(),
  /** In which zone it is to be read, where that is set. */
  ownZone: z.string().nullable(),
  sight: z.enum(SIGHTS),
  /** When its owner works, and on the clock of which zone: what lies outside isn't free by being empty. */
  hours: workHours,
  hoursZone: z.string(),
  /** How a time is booked, in its owner's words. */
  booking: z.string().nullable(),
  items: z.array(itemWire),
  until: z.string().nullable(),
  now: z.string(),
  cutShort: z.boolean(),
  more,
  ...asOf,
});
export interface LinkItemsAnswer {
  readonly owner: string;
  readonly calendar: string;
  readonly zone: string;
  readonly ends: string;
  readonly ownZone: string | null;
  readonly sight: Sight;
  readonly hours: WorkHours;
  readonly hoursZone: string;
  readonly booking: string | null;
  readonly items: readonly ItemWire[];
  readonly until: string | null;
  readonly now: string;
  readonly cutShort: boolean;
  readonly more: number | null;
  readonly version: Version | null;
}

/**
 * How far ahead a link shows (days), in which language and zone (`null`: as whoever reads it does), which website may frame its page, and what that
 * says of how a time is booked.
 */
export const linkShown = z.strictObject({
  ahead: z.number().int().min(1, 'size').max(366, 'aheadMost'),
  language: z.enum(['en', 'pt']).nullable(),
  zone: z.string().max(64, 'zone').nullable(),
  framedBy: z.string().trim().max(253).nullable(),
  booking: z.string().trim().max(300, 'tooLong:300').nullable().default(null),
});
export type LinkShown = z.infer<typeof linkShown>;

/** What is shown by an address instead of to a person. */
export const linkRoutes = {
  setLinkShown: {
    ...at('setLinkShown'),
    who: 'person',
    summary: 'How a link shows what it shows: how far ahead, in which language and zone, on which website',
    body: linkShown,
    answer: done,
  },
  linkFeed: {
    ...at('linkFeed'),
    who: 'open',
    summary: 'What a link shows, as a calendar file that a program asks for again and again',
    rawAnswer: 'text/calendar',
  },
  linkFreeBusy: {
    ...at('linkFreeBusy'),
    who: 'open',
    summary: 'When whoever a link shows is taken, as VFREEBUSY',
    query: z.object({ start: z.string().max(40).optional(), end: z.string().max(40).optional() }),
    rawAnswer: 'text/calendar',
  },
  listLinkItems: {
    ...at('listLinkItems'),
    who: 'open',
    summary: 'What a link shows of a calendar in a range',
    query: rangeQuery,
    answer: linkItemsAnswer,
  },
  linkLive: {
    ...at('linkLive'),
    who: 'open',
    summary: 'A stream that says when what a link shows changed',
    rawAnswer: 'text/event-stream',
  },
} as const satisfies Routes;
