import type { ItemRow } from './items.ts';

/** How many columns of an item a reader wants. */
export type Width = 'deciding' | 'outline' | 'full' | 'briefed';

/** A happening with its item's columns; only those of the width it was read at are there. */
export type HappeningRow = { readonly at: number; readonly until: number } & Omit<ItemRow, 'start' | 'finish'>;

/** The columns that deciding needs, and those each way of seeing adds. */
const DECIDING =
  'i.id, i.all_day, i.shows, i.visibility, i.cancelled, i.owner_answer, i.parties, i.owner_invited, i.created_by';
const OUTLINE = `${DECIDING}, i.key, i.title, i.kind, i.place`;
const FULL = `${OUTLINE}, i.notes, i.link, i.organiser, i.attendees, i.categories, i.importance, i.rule, i.added,
  i.left_out, i.series_id, i.zone, i.version, i.created_for, i.created_at, i.changed_by, i.changed_for, i.changed_at`;
export const COLUMNS: Record<Width, string> = {
  deciding: DECIDING,
  outline: OUTLINE,
  full: FULL,
  briefed: `${FULL}, i.briefing`,
};

/**
 * Makes a row of an array of values (start, end, then the columns of the width). Written out, because rows read as arrays and
 * built so cost half of rows read as objects.
 */
export const ROW: Record<Width, (v: unknown[]) => unknown> = {
  deciding: (v) => ({
    at: v[0],
    until: v[1],
    id: v[2],
    all_day: v[3],
    shows: v[4],
    visibility: v[5],
    cancelled: v[6],
    owner_answer: v[7],
    parties: v[8],
    owner_invited: v[9],
    created_by: v[10],
  }),
  outline: (v) => ({
    at: v[0],
    until: v[1],
    id: v[2],
    all_day: v[3],
    shows: v[4],
    visibility: v[5],
    cancelled: v[6],
    owner_answer: v[7],
    parties: v[8],
    owner_invited: v[9],
    created_by: v[10],
    key: v[11],
    title: v[12],
    kind: v[13],
    place: v[14],
  }),
  full: (v) => ({
    at: v[0],
    until: v[1],
    id: v[2],
    all_day: v[3],
    shows: v[4],
    visibility: v[5],
    cancelled: v[6],
    owner_answer: v[7],
    parties: v[8],
    owner_invited: v[9],
    created_by: v[10],
    key: v[11],
    title: v[12],
    kind: v[13],
    place: v[14],
    notes: v[15],
    link: v[16],
    organiser: v[17],
    attendees: v[18],
    categories: v[19],
    importance: v[20],
    rule: v[21],
    added: v[22],
    left_out: v[23],
    series_id: v[24],
    zone: v[25],
    version: v[26],
    created_for: v[27],
    created_at: v[28],
    changed_by: v[29],
    changed_for: v[30],
    changed_at: v[31],
  }),
  briefed: (v) => ({
    at: v[0],
    until: v[1],
    id: v[2],
    all_day: v[3],
    shows: v[4],
    visibility: v[5],
    cancelled: v[6],
    owner_answer: v[7],
    parties: v[8],
    owner_invited: v[9],
    created_by: v[10],
    key: v[11],
    title: v[12],
    kind: v[13],
    place: v[14],
    notes: v[15],
    link: v[16],
    organiser: v[17],
    attendees: v[18],
    categories: v[19],
    importance: v[20],
    rule: v[21],
    added: v[22],
    left_out: v[23],
    series_id: v[24],
    zone: v[25],
    version: v[26],
    created_for: v[27],
    created_at: v[28],
    changed_by: v[29],
    changed_for: v[30],
    changed_at: v[31],
    briefing: v[32],
  }),
};
