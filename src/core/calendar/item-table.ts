import type { Holds } from '../fields/index.ts';
import { IMPORTANCES, KINDS, LIMITS, STATUSES, VISIBILITIES } from './kinds.ts';

/**
 * What is said of a field:
 * - `sight`: from which way of seeing on it is sent. `asSet`: among the values as set, for the owner and whoever changes all; `never`: it
 *   only decides. Whoever doesn't see a field doesn't write it.
 * - `decides`: an access decision reads it, so every reading of rows has it.
 * - `copied`: a copy of the item has it: `anywhere`, or `here`, in the same calendar.
 * - `said`: whoever calls a meeting says it, and everybody's copy has it.
 * - `forward`: somebody who may not change the item may put it forward: of a `change`, or only of something `new`.
 * - `searched`: a search finds its words; that takes a column in the index of words too.
 * - `file`: the property it stands in in calendar files and for programs; `null` where it stays in the house.
 */
export type FieldSpec = Holds & {
  readonly sight: 'busy' | 'title' | 'outline' | 'full' | 'briefed' | 'asSet' | 'never';
  readonly decides?: true;
  readonly copied?: 'anywhere' | 'here';
  readonly said?: true;
  readonly forward?: 'change' | 'new';
  readonly file?: string | null;
  readonly searched?: true;
};

/**
 * Every field of an item, once. Schemas, columns, what each way of seeing is sent, patches, forms, copies, files and the trail are made
 * of this table; a new field needs its row here and a column in a migration. In the order in which answers have them.
 */
export const ITEM_FIELDS = {
  start: { type: 'made', sight: 'busy' },
  end: { type: 'made', sight: 'busy' },
  allDay: { type: 'made', sight: 'busy' },
  shows: {
    type: 'choice',
    of: STATUSES,
    fresh: 'busy',
    sight: 'busy',
    decides: true,
    copied: 'here',
    forward: 'new',
    file: 'X-PARAMO-SHOWS',
  },
  title: {
    type: 'line',
    most: LIMITS.title,
    required: true,
    sight: 'title',
    copied: 'anywhere',
    said: true,
    forward: 'change',
    file: 'SUMMARY',
    searched: true,
  },
  kind: {
    type: 'choice',
    of: KINDS,
    fresh: 'meeting',
    sight: 'title',
    copied: 'anywhere',
    forward: 'new',
    file: 'X-PARAMO-KIND',
  },
  place: {
    type: 'line',
    most: LIMITS.place,
    sight: 'outline',
    copied: 'anywhere',
    said: true,
    forward: 'change',
    file: 'LOCATION',
    searched: true,
  },
  notes: {
    type: 'text',
    most: LIMITS.notes,
    sight: 'full',
    copied: 'anywhere',
    said: true,
    forward: 'change',
    file: 'DESCRIPTION',
    searched: true,
  },
  link: {
    type: 'link',
    most: LIMITS.link,
    sight: 'full',
    copied: 'anywhere',
    said: true,
    forward: 'change',
    file: 'URL',
    searched: true,
  },
  organiser: { type: 'made', sight: 'full' },
  attendees: { type: 'made', sight: 'full' },
  categories: {
    type: 'list',
    most: LIMITS.categories,
    each: LIMITS.category,
    sight: 'full',
    copied: 'here',
    file: 'CATEGORIES',
    searched: true,
  },
  importance: { type: 'choice', of: IMPORTANCES, fresh: 'normal', sight: 'full', copied: 'here', file: 'PRIORITY' },
  repeats: { type: 'made', sight: 'full' },
  visibility: {
    type: 'choice',
    of: VISIBILITIES,
    fresh: 'follow',
    sight: 'full',
    decides: true,
    copied: 'here',
    forward: 'new',
    file: 'X-PARAMO-VISIBILITY',
  },
  createdBy: { type: 'made', sight: 'full' },
  briefing: { type: 'text', most: LIMITS.briefing, sight: 'briefed', copied: 'here', file: null, searched: true },
  /** It stays where it is when room is made. */
  fixed: { type: 'flag', fresh: false, sight: 'asSet', file: null },
  cancelled: { type: 'made', sight: 'never' },
  /** The owner's own answer where the item is an invitation or a meeting; absent leaves `shows` as it is set. */
  ownerAnswer: { type: 'made', sight: 'never' },
} as const satisfies Record<string, FieldSpec>;
