import { LONG_TEXTS } from '@/core/calendar/index.ts';
import { columnsAt, type ItemRow, type ReadColumn } from './item-columns.ts';

/** How many columns of an item a reader wants; `whole` has the long texts that the others leave with the item. */
export type Width = 'deciding' | 'outline' | 'full' | 'briefed' | 'whole';

/** What of a row was left with its item because it is long, as bits. */
const LONG_FIELDS = [...LONG_TEXTS, 'attendees', 'repeats'] as const;
type LongField = (typeof LONG_FIELDS)[number];
export const LONG = Object.fromEntries(LONG_FIELDS.map((name, i) => [name, 2 ** i])) as Record<LongField, number>;

/** Bytes up to which a text, and up to which a list of people or dates, comes with a list of items. */
const LONG_TEXT = 2000;
const LONG_LIST = 4000;

/** An occurrence with its item's columns; only those of the width it was read at are there. */
export type OccurrenceRow = { readonly at: number; readonly until: number; readonly long: number } & Pick<
  ItemRow,
  ReadColumn
>;

const NAMES = {
  deciding: columnsAt('deciding'),
  outline: columnsAt('outline'),
  full: columnsAt('full'),
  briefed: columnsAt('briefed'),
  whole: columnsAt('briefed'),
} as const;

const tooLong = (column: string, most: number): string => `octet_length(i.${column}) > ${most}`;
const CUT: Partial<Record<string, string>> = {
  ...Object.fromEntries(
    LONG_TEXTS.map((name) => [name, `CASE WHEN ${tooLong(name, LONG_TEXT)} THEN NULL ELSE i.${name} END`]),
  ),
  attendees: `CASE WHEN ${tooLong('attendees', LONG_LIST)} THEN '[]' ELSE i.attendees END`,
  // Only whether there are added dates matters (an item with any is a series), so one stands for all.
  added: `CASE WHEN ${tooLong('added', LONG_LIST)} THEN json_array(i.added ->> 0) ELSE i.added END`,
  left_out: `CASE WHEN ${tooLong('left_out', LONG_LIST)} THEN '[]' ELSE i.left_out END`,
};
/** What of the columns of a width is left with the item. */
const bitsOf = (names: readonly string[]): string =>
  [
    ...LONG_TEXTS.filter((name) => names.includes(name)).map(
      (name) => `coalesce(${tooLong(name, LONG_TEXT)}, 0) * ${LONG[name]}`,
    ),
    `(${tooLong('attendees', LONG_LIST)}) * ${LONG.attendees}`,
    `(${tooLong('added', LONG_LIST)} OR ${tooLong('left_out', LONG_LIST)}) * ${LONG.repeats}`,
  ].join(' + ');

/** The SQL that gives a width's columns of item `i`, in the order in which `ROW` takes them. */
export const COLUMNS: Record<Width, string> = {
  deciding: `0, ${NAMES.deciding.map((c) => `i.${c}`).join(', ')}`,
  outline: `0, ${NAMES.outline.map((c) => `i.${c}`).join(', ')}`,
  full: `${bitsOf(NAMES.full)}, ${NAMES.full.map((c) => CUT[c] ?? `i.${c}`).join(', ')}`,
  briefed: `${bitsOf(NAMES.briefed)}, ${NAMES.briefed.map((c) => CUT[c] ?? `i.${c}`).join(', ')}`,
  whole: `0, ${NAMES.briefed.map((c) => `i.${c}`).join(', ')}`,
};

/**
 * Makes a row of an array of values (start, end, what was left with the item, then the columns of the width). Each builder is one
 * object literal made of the column names above, because rows read as arrays and built so cost half of rows read as objects.
 */
const builder = (names: readonly string[]): ((v: unknown[]) => unknown) =>
  new Function(
    'v',
    `return { at: v[0], until: v[1], long: v[2], ${names.map((n, i) => `${n}: v[${i + 3}]`).join(', ')} };`,
  ) as (v: unknown[]) => unknown;
export const ROW: Record<Width, (v: unknown[]) => unknown> = {
  deciding: builder(NAMES.deciding),
  outline: builder(NAMES.outline),
  full: builder(NAMES.full),
  briefed: builder(NAMES.briefed),
  whole: builder(NAMES.whole),
};

/** A whole row as a list of items carries it: what is long stays with the item. */
export function asListed(row: OccurrenceRow): OccurrenceRow {
  const long = LONG_FIELDS.filter((name) => isLong(row, name));
  if (long.length === 0) return row;
  const { added, left_out } = row;
  return {
    ...row,
    ...Object.fromEntries(
      long.filter((name) => name !== 'repeats').map((name) => [name, name === 'attendees' ? '[]' : null]),
    ),
    long: long.reduce((bits, name) => bits + LONG[name], 0),
    added: added.length > LONG_LIST ? JSON.stringify((JSON.parse(added) as unknown[]).slice(0, 1)) : added,
    left_out: left_out.length > LONG_LIST ? '[]' : left_out,
  };
}

function isLong(row: OccurrenceRow, name: LongField): boolean {
  if (name === 'repeats') return row.added.length > LONG_LIST || row.left_out.length > LONG_LIST;
  return name === 'attendees' ? row.attendees.length > LONG_LIST : (row[name]?.length ?? 0) > LONG_TEXT;
}
