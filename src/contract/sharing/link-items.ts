import { z } from 'zod';
import { SIGHTS, type Sight } from '@/core/calendar/index.ts';
import { asOf, type ItemWire, itemWire, more } from '../items/items.ts';
import { type WorkHours, workHours } from '../people/hours.ts';
import type { Version } from '../version.ts';

/** What whoever holds a link gets: whose calendar it is, and the items; nothing else of anybody. */
export const linkItemsAnswer = z.strictObject({
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
