import { z } from 'zod';
import { KINDS } from '@/core/calendar/index.ts';
import { type ContactWire, contactWire } from './contacts.ts';
import { type ItemWire, itemWire, rangeQuery } from './items/items.ts';
import { at, type Routes } from './route.ts';
import { type TaskWire, taskWire } from './tasks.ts';

/** What is looked for: words that all stand in what one sees of an item, of a kind, between dates; in the calendars one keeps, or in all. */
export const searchQuery = z.strictObject({
  words: z.string().trim().min(1, 'words').max(200),
  kind: z.enum(KINDS).optional(),
  from: z.iso.date('date').optional(),
  to: z.iso.date('date').optional(),
  everywhere: z.literal('1').optional(),
});
const searchAnswer = z.strictObject({
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
  /** Tasks whose words, as one sees them, hold what is looked for; `of` is the list’s name where it isn’t the one its owner began with. */
  tasks: z.array(
    z.strictObject({
      owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
      of: z.string().nullable(),
      task: taskWire,
    }),
  ),
  tasksCut: z.boolean(),
  /** Contacts likewise. */
  contacts: z.array(
    z.strictObject({
      owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
      of: z.string().nullable(),
      contact: contactWire,
    }),
  ),
  contactsCut: z.boolean(),
  /** Mails likewise, with the folder each is in. */
  messages: z.array(
    z.strictObject({
      owner: z.strictObject({ handle: z.string(), name: z.string(), colour: z.number() }),
      folder: z.strictObject({ key: z.string(), name: z.string() }),
      /** `id` where it is seen in full, and so can be opened. */
      message: z.strictObject({
        id: z.string().nullable(),
        from: z.string(),
        subject: z.string(),
        at: z.string(),
        firstLine: z.string().nullable(),
      }),
    }),
  ),
  messagesCut: z.boolean(),
});
export interface SearchAnswer {
  readonly found: readonly {
    readonly owner: { readonly handle: string; readonly name: string; readonly colour: number };
    readonly calendar: string;
    readonly of: string | null;
    readonly item: ItemWire;
  }[];
  readonly cut: boolean;
  readonly tasks: readonly {
    readonly owner: { readonly handle: string; readonly name: string; readonly colour: number };
    readonly of: string | null;
    readonly task: TaskWire;
  }[];
  readonly tasksCut: boolean;
  readonly contacts: readonly {
    readonly owner: { readonly handle: string; readonly name: string; readonly colour: number };
    readonly of: string | null;
    readonly contact: ContactWire;
  }[];
  readonly contactsCut: boolean;
  readonly messages: readonly {
    readonly owner: { readonly handle: string; readonly name: string; readonly colour: number };
    readonly folder: { readonly key: string; readonly name: string };
    readonly message: {
      readonly id: string | null;
      readonly from: string;
      readonly subject: string;
      readonly at: string;
      readonly firstLine: string | null;
    };
  }[];
  readonly messagesCut: boolean;
}

/** On which days of a calendar something is whose words, as one sees them, hold what is looked for. */
export const foundDaysQuery = rangeQuery.extend({
  words: z.string().trim().min(1, 'words').max(200),
  kind: z.enum(KINDS).optional(),
});
const foundDaysAnswer = z.strictObject({
  days: z.array(z.strictObject({ date: z.string(), count: z.number() })),
  /** Not everything of the range could be looked at. */
  cut: z.boolean(),
});
export type FoundDaysAnswer = z.infer<typeof foundDaysAnswer>;

/** Finding items by their words. */
export const searchRoutes = {
  search: {
    ...at('search'),
    who: 'person',
    summary: 'Items whose visible words hold what is looked for',
    query: searchQuery,
    answer: searchAnswer,
  },
  findDays: {
    ...at('findDays'),
    who: 'person',
    summary: 'Days of a calendar on which something holds what is looked for',
    query: foundDaysQuery,
    answer: foundDaysAnswer,
  },
} as const satisfies Routes;
