import { z } from 'zod';
import { COLLECTION_KINDS } from '@/core/collection/index.ts';
import { type ItemWire, itemWire, writtenAnswer } from './items/items.ts';
import { at, type Routes } from './route.ts';
import { rightsSchema } from './sharing/sight.ts';

/** What happened to an item: who did it, for whom, when, and what was otherwise before, as the viewer sees both. */
const trailAnswer = z.strictObject({
  entries: z.array(
    z.strictObject({
      key: z.string(),
      at: z.string(),
      actor: z.string(),
      /** Who was behind the actor, where that is an account several people use. */
      hands: z.string().nullable(),
      principal: z.string(),
      verb: z.string(),
      changed: z.array(
        z.strictObject({ field: z.string(), before: z.string().nullable(), after: z.string().nullable() }),
      ),
      /** Whether it was the asker's own act, and can still be undone. */
      undo: z.boolean(),
    }),
  ),
  cut: z.boolean(),
});
export type TrailAnswer = z.infer<typeof trailAnswer>;

const removedAnswer = z.strictObject({
  removed: z.array(z.strictObject({ at: z.string(), by: z.string(), item: itemWire })),
  cut: z.boolean(),
});
export interface RemovedAnswer {
  readonly removed: readonly { readonly at: string; readonly by: string; readonly item: ItemWire }[];
  readonly cut: boolean;
}

/** What is listed of the trail: what happened in one's own name, what one did for others, or what happened in one calendar. */
const OF = ['name', 'others', 'calendar'] as const;
/** Kinds of entries: of items, of tasks, of contacts, of mail and its folders, of access, of absences, of the Desk, and of the house itself. */
const TRAIL_KINDS = ['items', 'tasks', 'contacts', 'messages', 'access', 'away', 'desk', 'house'] as const;

const listQuery = z.strictObject({
  of: z.enum(OF).default('name'),
  /** Which calendar, by key; of `calendar` alone. */
  calendar: z.string().max(64).optional(),
  /** By whom, by handle; of what one did for others, for whom. */
  who: z.string().max(64).optional(),
  kind: z.enum(TRAIL_KINDS).optional(),
  /** Days on one's own clock, the last one included. */
  from: z.iso.date('date').optional(),
  until: z.iso.date('date').optional(),
  /** The entry after which to go on, by key. */
  after: z.string().max(64).optional(),
});
export type TrailQuery = z.infer<typeof listQuery>;

const level = z
  .strictObject({ preset: z.string().nullable(), rights: rightsSchema, until: z.string().nullable() })
  .nullable();
export const trailEntry = z.strictObject({
  key: z.string(),
  at: z.string(),
  actor: z.string(),
  /** Who was behind the actor, where that is an account several people use. */
  hands: z.string().nullable(),
  principal: z.string(),
  verb: z.string(),
  /** What it is called, for a further calendar. */
  calendar: z.string().nullable(),
  /** What it was about, by title; `null` where one doesn't see that. */
  items: z.array(z.string().nullable()),
  /** How many more it was about. */
  more: z.number(),
  /** The audience of an act on access. */
  who: z.string().nullable(),
  changed: z.array(z.strictObject({ field: z.string(), before: z.string().nullable(), after: z.string().nullable() })),
  /** What an audience had before an act on access, and has after it. */
  levels: z.strictObject({ before: level, after: level }).nullable(),
  /** Whether one may take it back now. */
  undo: z.boolean(),
  /** When what it said was forgotten, where it was. */
  forgotten: z.string().nullable(),
});
export type TrailEntryWire = z.infer<typeof trailEntry>;

const listAnswer = z.strictObject({
  entries: z.array(trailEntry),
  /** More than were looked through: go on after the last one looked at. */
  after: z.string().nullable(),
  /** Those who appear: to choose from. */
  people: z.array(z.strictObject({ handle: z.string(), name: z.string() })),
  /** The calendars and lists whose trail one may read; an empty name is a main calendar, or the list its owner began with. */
  calendars: z.array(
    z.strictObject({ key: z.string(), kind: z.enum(COLLECTION_KINDS), name: z.string(), owner: z.string() }),
  ),
});
export type TrailListAnswer = z.infer<typeof listAnswer>;

/** What happened here, and bringing back what was removed. */
export const trailRoutes = {
  readTrail: {
    ...at('readTrail'),
    who: 'person',
    summary: 'What happened to an item, for whoever runs its calendar',
    answer: trailAnswer,
  },
  listTrail: {
    ...at('listTrail'),
    who: 'person',
    summary: 'What was done in one’s name, by one for others, or in a calendar one runs, the latest first',
    query: listQuery,
    answer: listAnswer,
  },
  trailFile: {
    ...at('trailFile'),
    who: 'person',
    summary: 'The same as a table, at most five thousand lines',
    query: listQuery,
    rawAnswer: 'text/csv',
  },
  readTrailDigest: {
    ...at('readTrailDigest'),
    who: 'person',
    summary:
      'The digest of the trail as it stood at the last full hour: kept elsewhere, it proves later that nothing before it was changed',
    answer: z.strictObject({ at: z.string(), digest: z.string() }),
  },
  listRemoved: {
    ...at('listRemoved'),
    who: 'person',
    summary: 'What was removed in the last thirty days and may be brought back',
    answer: removedAnswer,
  },
  bringBack: {
    ...at('bringBack'),
    who: 'person',
    summary: 'Bring back a removed item, with all that was removed with it',
    answer: writtenAnswer,
  },
} as const satisfies Routes;
