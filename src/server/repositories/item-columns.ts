import { freshValue, type ITEM_FIELDS, specOf, WRITTEN_FIELDS, type WrittenField } from '@/core/calendar/index.ts';
import type { StoredItem } from './stored-item.ts';

/**
 * How a value stands in its column: as it is, as 0 or 1, as JSON, or, of lists, as JSON whose empty form is the commonest by far.
 * `parties` is made of the organiser and the attendees: the addresses, each between line feeds, so that who is a party is one look.
 */
type Codec = 'plain' | 'flag' | 'json' | 'list' | 'parties';

/** From which width on a reading has the column; `null` where no range is read with it. */
type From = 'deciding' | 'outline' | 'full' | 'briefed' | null;

interface Column {
  readonly of: keyof StoredItem;
  readonly as: Codec;
  readonly from: From;
}
const column = <K extends keyof StoredItem, C extends Codec, F extends From>(of: K, as: C, from: F) => ({
  of,
  as,
  from,
});

/** How the value of a written field stands in its column, which has the field's name. */
type CodecOf<K extends WrittenField> = (typeof ITEM_FIELDS)[K] extends { type: 'flag' }
  ? 'flag'
  : (typeof ITEM_FIELDS)[K] extends { type: 'list' }
    ? 'list'
    : 'plain';
/** From which width on it is read: with what its sight is first sent in. */
const WIDTH_OF = {
  busy: 'deciding',
  title: 'outline',
  outline: 'outline',
  full: 'full',
  briefed: 'briefed',
  asSet: 'full',
  never: 'deciding',
} as const satisfies Record<ReturnType<typeof specOf>['sight'], From>;

const writtenColumns = Object.fromEntries(
  WRITTEN_FIELDS.map((name) => {
    const { type, sight, decides } = specOf(name);
    return [
      name,
      column(name, type === 'flag' || type === 'list' ? type : 'plain', decides ? 'deciding' : WIDTH_OF[sight]),
    ];
  }),
) as { readonly [K in WrittenField]: { of: K; as: CodecOf<K>; from: Exclude<From, null> } };

/** Every column of an item beside its number: which field it holds, how, and how widely it is read. One list for all that reads or writes. */
export const itemColumns = {
  key: column('key', 'plain', 'outline'),
  calendar_id: column('calendarId', 'plain', 'full'),
  uid: column('uid', 'plain', 'full'),
  series_id: column('seriesId', 'plain', 'full'),
  recurrence: column('recurrence', 'plain', null),
  start: column('start', 'plain', null),
  finish: column('end', 'plain', null),
  wall: column('wall', 'plain', null),
  days: column('days', 'plain', null),
  all_day: column('allDay', 'flag', 'deciding'),
  zone: column('zone', 'plain', 'full'),
  end_zone: column('endZone', 'plain', 'full'),
  rule: column('rule', 'plain', 'full'),
  added: column('added', 'list', 'full'),
  left_out: column('left', 'list', 'full'),
  ...writtenColumns,
  cancelled: column('cancelled', 'flag', 'deciding'),
  owner_answer: column('ownerAnswer', 'plain', 'deciding'),
  organiser: column('organiser', 'json', 'full'),
  attendees: column('attendees', 'list', 'full'),
  parties: column('attendees', 'parties', 'deciding'),
  owner_invited: column('ownerInvited', 'flag', 'deciding'),
  hold_set: column('holdSet', 'plain', 'full'),
  lapses_at: column('lapsesAt', 'plain', 'full'),
  sequence: column('sequence', 'plain', null),
  version: column('version', 'plain', 'full'),
  created_by: column('createdBy', 'plain', 'deciding'),
  created_for: column('createdFor', 'plain', 'full'),
  created_at: column('createdAt', 'plain', 'full'),
  changed_by: column('changedBy', 'plain', 'full'),
  changed_for: column('changedFor', 'plain', 'full'),
  changed_at: column('changedAt', 'plain', 'full'),
  removed_at: column('removedAt', 'plain', null),
  kept: column('kept', 'list', null),
  batch: column('batch', 'plain', null),
} as const satisfies Record<string, Column>;
type Columns = typeof itemColumns;

type Missing = Exclude<keyof StoredItem, 'id' | Columns[keyof Columns]['of']>;
/** A field of an item without a column doesn't compile. */
null satisfies Missing extends never ? null : never;

type InColumn<C extends Column> = C['as'] extends 'plain'
  ? StoredItem[C['of']]
  : C['as'] extends 'flag'
    ? 0 | 1
    : null extends StoredItem[C['of']]
      ? string | null
      : string;

/** An item row as SQLite gives it. */
export type ItemRow = { id: number } & { -readonly [K in keyof Columns]: InColumn<Columns[K]> };

/** A JSON list of a column; the empty one, which is nearly every one, without parsing. */
export const list = <T>(text: string): T[] => (text === '[]' ? [] : JSON.parse(text));

/** Whether an address stands in a row's `parties`. */
export const namesParty = (parties: string, address: string): boolean =>
  parties !== '' && parties.includes(`\n${address}\n`);

function partiesOf(item: Pick<StoredItem, 'organiser' | 'attendees'>): string {
  const addresses = [item.organiser?.address, ...item.attendees.map((a) => a.address)].filter(Boolean);
  return addresses.length === 0 ? '' : `\n${addresses.join('\n')}\n`;
}

/** Older trail entries don't have these fields. */
const ABSENT: Partial<Record<keyof StoredItem, string>> = {
  wall: 'null',
  days: '0',
  kept: '[]',
  batch: 'null',
  endZone: 'null',
  holdSet: 'null',
  lapsesAt: 'null',
  ...Object.fromEntries(
    WRITTEN_FIELDS.flatMap((name) => {
      const fresh = freshValue(name);
      return fresh === undefined ? [] : [[name, JSON.stringify(fresh)]];
    }),
  ),
};

const entries = Object.entries(itemColumns) as [keyof Columns, Column][];
const decoding = ([name, { of, as }]: [string, Column]): string =>
  `${of}: ${
    as === 'plain'
      ? `r.${name}`
      : as === 'flag'
        ? `r.${name} === 1`
        : as === 'json'
          ? `r.${name} === null ? null : JSON.parse(r.${name})`
          : `list(r.${name})`
  }`;
const encoding = ([name, { of, as }]: [string, Column]): string => {
  const value = ABSENT[of] === undefined ? `i.${of}` : `(i.${of} ?? ${ABSENT[of]})`;
  const texts = {
    plain: value,
    flag: `${value} ? 1 : 0`,
    json: `${value} === null ? null : JSON.stringify(${value})`,
    list: `JSON.stringify(${value})`,
    parties: 'partiesOf(i)',
  } satisfies Record<Codec, string>;
  return `${name}: ${texts[as]}`;
};

/*
 * Both ways are one object literal made of the table, as fast as one written by hand: a loop over the table would cost several times
 * as much for each of thousands of rows.
 */
const decodings = entries.filter(([, { as }]) => as !== 'parties').map(decoding);
/** An item from its row. */
export const decodeItem = new Function('list', `return (r) => ({ id: r.id, ${decodings.join(', ')} });`)(list) as (
  row: ItemRow,
) => StoredItem;
/** An item's columns. */
export const encodeItem = new Function('partiesOf', `return (i) => ({ ${entries.map(encoding).join(', ')} });`)(
  partiesOf,
) as (item: Omit<StoredItem, 'id'>) => Omit<ItemRow, 'id'>;

const WIDTHS = ['deciding', 'outline', 'full', 'briefed'] as const;
type ReadWidth = (typeof WIDTHS)[number];

/** The columns a reading of a width has, the item's number first. */
export function columnsAt(width: ReadWidth): string[] {
  const up = WIDTHS.slice(0, WIDTHS.indexOf(width) + 1);
  return ['id', ...entries.filter(([, { from }]) => from !== null && up.includes(from)).map(([name]) => name)];
}

/** The columns that a reading of some width has. */
export type ReadColumn = 'id' | { [K in keyof Columns]: Columns[K]['from'] extends null ? never : K }[keyof Columns];
