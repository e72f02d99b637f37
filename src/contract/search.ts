import { z } from 'zod';
import { KINDS } from '@/core/calendar/index.ts';
import { type ItemWire, itemWire } from './items.ts';
import { at, type Routes } from './route.ts';

/** What is looked for: words that all stand in what one sees of an item, of a kind, between dates; in the calendars one keeps, or in all. */
export const searchQuery = z.strictObject({
  words: z.string().trim().min(1, 'words').max(200),
  kind: z.enum(KINDS).optional(),
  from: z.iso.date('date').optional(),
  to: z.iso.date('date').optional(),
  everywhere: z.literal('1').optional(),
});
export const searchAnswer = z.strictObject({
  found: z.array(
    z.strictObject({
      owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
      /** Its calendar, and that one's name where it isn't the owner's main one. */
      calendar: z.string(),
      of: z.string().nullable(),
      item: itemWire,
    }),
  ),
  /** There may be more than is shown. */
  cut: z.boolean(),
});
export interface SearchAnswer {
  readonly found: readonly {
    readonly owner: { readonly handle: string; readonly name: string; readonly colour: number };
    readonly calendar: string;
    readonly of: string | null;
    readonly item: ItemWire;
  }[];
  readonly cut: boolean;
}

/** Finding items by their words. */
export const searchRoutes = {
  search: {
    ...at('search'),
    who: 'person',
    summary: 'Items whose visible words hold what is looked for',
    query: searchQuery,
    answer: searchAnswer,
  },
} as const satisfies Routes;
