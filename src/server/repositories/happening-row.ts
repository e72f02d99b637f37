import { columnsAt, type ItemRow, type ReadColumn } from './item-columns.ts';

/** How many columns of an item a reader wants; `whole` has the long texts that the others leave with the item. */
export type Width = 'deciding' | 'outline' | 'full' | 'briefed' | 'whole';

/** What of a row was left with its item because it is long, as bits. */
export const LONG = { notes: 1, attendees: 2, repeats: 4, briefing: 8 } as const;

/** Bytes up to which a text, and up to which a list of people or dates, comes with a list of items. */
const LONG_TEXT = 2000;
const LONG_LIST = 4000;

/** A happening with its item's columns; only those of the width it was read at are there. */
export type HappeningRow = { readonly at: number; readonly until: number; readonly long: number } & Pick<
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
  notes: `CASE WHEN ${tooLong('notes', LONG_TEXT)} THEN NULL ELSE i.notes END`,
  briefing: `CASE WHEN ${tooLong('briefing', LONG_TEXT)} THEN NULL ELSE i.briefing END`,
  attendees: `CASE WHEN ${tooLong('attendees', LONG_LIST)} THEN '[]' ELSE i.attendees END`,
  // Whether there are added dates at all makes an item a series: one stands for the many.
  added: `CASE WHEN ${tooLong('added', LONG_LIST)} THEN json_array(i.added ->> 0) ELSE i.added END`,
  left_out: `CASE WHEN ${tooLong('left_out', LONG_LIST)} THEN '[]' ELSE i.left_out END`,
};
const BITS = `coalesce(${tooLong('notes', LONG_TEXT)}, 0) * ${LONG.notes} + (${tooLong('attendees', LONG_LIST)}) * ${LONG.attendees}
  + (${tooLong('added', LONG_LIST)} OR ${tooLong('left_out', LONG_LIST)}) * ${LONG.repeats}`;
const BRIEFED_BITS = `${BITS} + coalesce(${tooLong('briefing', LONG_TEXT)}, 0) * ${LONG.briefing}`;

/** The SQL that gives a width's columns of item `i`, in the order in which `ROW` takes them. */
export const COLUMNS: Record<Width, string> = {
  deciding: `0, ${NAMES.deciding.map((c) => `i.${c}`).join(', ')}`,
  outline: `0, ${NAMES.outline.map((c) => `i.${c}`).join(', ')}`,
  full: `${BITS}, ${NAMES.full.map((c) => CUT[c] ?? `i.${c}`).join(', ')}`,
  briefed: `${BRIEFED_BITS}, ${NAMES.briefed.map((c) => CUT[c] ?? `i.${c}`).join(', ')}`,
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
export function asListed(row: HappeningRow): HappeningRow {
  const notes = (row.notes?.length ?? 0) > LONG_TEXT;
  const briefing = (row.briefing?.length ?? 0) > LONG_TEXT;
  const attendees = row.attendees.length > LONG_LIST;
  const repeats = row.added.length > LONG_LIST || row.left_out.length > LONG_LIST;
  if (!notes && !briefing && !attendees && !repeats) return row;
  return {
    ...row,
    long:
      Number(notes) * LONG.notes +
      Number(attendees) * LONG.attendees +
      Number(repeats) * LONG.repeats +
      Number(briefing) * LONG.briefing,
    notes: notes ? null : row.notes,
    briefing: briefing ? null : row.briefing,
    attendees: attendees ? '[]' : row.attendees,
    added: row.added.length > LONG_LIST ? JSON.stringify((JSON.parse(row.added) as unknown[]).slice(0, 1)) : row.added,
    left_out: row.left_out.length > LONG_LIST ? '[]' : row.left_out,
  };
}
