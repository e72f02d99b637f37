import type { ItemWire } from '@/contract/items/items.ts';
import { type Decision, type MayItem, mayRun, type Reader, readerOf, type Standing } from '@/core/access/index.ts';
import { CONTENT_FIELDS, type Party, specOf } from '@/core/calendar/index.ts';
import { sameAddress } from '@/core/meetings/index.ts';
import type { Connection } from '../../../db/index.ts';
import { occurrenceId, type Sealed, sealIds } from '../../../ids.ts';
import type { Calendar } from '../../../repositories/calendars.ts';
import { itemById } from '../../../repositories/items.ts';
import { asListed, LONG, type OccurrenceRow, type Width } from '../../../repositories/occurrence-row.ts';
import type { Person } from '../../../repositories/people.ts';
import { MOST_BYTES_IN_ANSWER, MOST_ITEMS_IN_ANSWER } from '../budgets.ts';
import type { Directory } from '../context/directory.ts';
import { asSetOf, RowItem, rowOf, standingOf } from './row-item.ts';
import { type Range, rowsIn } from './rows-in.ts';

export type { Range } from './rows-in.ts';

/** Who the views are made for. `person` is `null` for a viewer who is no one in particular (everyone, a group). */
export interface Looker {
  readonly person: Person | null;
  readonly decision: Decision;
  /** Set where the owner looks through another's eyes: ids are then the owner's own, so that an item can be opened. */
  readonly ownersIds?: boolean;
  /** The number ids are sealed for where the viewer is no person: a link's. */
  readonly sealAs?: number;
}

function widthFor({ decision, ownersIds }: Looker): Width {
  if (ownersIds) return 'briefed';
  if (mayRun(decision).whole) return 'briefed';
  const { sight } = decision.rights;
  return sight === 'full' ? 'full' : sight === 'busy' ? 'deciding' : 'outline';
}

/** What of a reading is wanted: everything with its long texts (`whole`), behind as many views as were given before, at most so many. */
interface Wanted {
  readonly most?: number;
  readonly whole?: boolean;
  readonly after?: number;
}

/**
 * Views in order of start. `more`: how many were given in all where the budget of an answer ended them, to ask on behind; by what
 * the looker is shown and nothing else. `unread`: a budget left some repeats beyond the index unread.
 */
export interface Views {
  readonly items: ItemWire[];
  readonly more: number | null;
  readonly unread: boolean;
}

/** The item a view is of, by its row number, and when it happens: instants, or dates where it is all-day. */
export interface ViewedOccurrence {
  readonly item: number;
  readonly start: number;
  readonly end: number;
  /** What was read of it, where it is seen in full; else too little may have been. */
  readonly row: OccurrenceRow | null;
}

/** Views, and what each is of, which must never be sent. */
interface ViewsOf extends Views {
  readonly of: readonly ViewedOccurrence[];
}

/**
 * The views of what happens in a range, for one looker, in order of start, within the budget of an answer. The only way from rows to
 * an answer: the week board, the previews in Sightlines, the ribbon and the file all come through here.
 */
export function readViews(
  db: Connection,
  directory: Directory,
  calendar: Calendar,
  range: Range,
  looker: Looker,
  wanted: Wanted = {},
): Views {
  const { items, more, unread } = readViewsOf(db, directory, calendar, range, looker, wanted);
  return { items, more, unread };
}

/** The same with what each view is of, for who works on with it inside. */
export function readViewsOf(
  db: Connection,
  directory: Directory,
  calendar: Calendar,
  range: Range,
  looker: Looker,
  wanted: Wanted = {},
): ViewsOf {
  if (looker.decision.rights.sight === 'nothing') return { items: [], of: [], more: null, unread: false };
  const width = wanted.whole ? 'whole' : widthFor(looker);
  const { rows, unread } = rowsIn(db, calendar, range, width);
  return { ...viewRows(db, directory, rows, width, looker, wanted), unread };
}

/** The same where nobody asks on: what the budget cuts off is not looked at. */
export function viewsIn(
  db: Connection,
  directory: Directory,
  calendar: Calendar,
  range: Range,
  looker: Looker,
  wanted?: Wanted,
): ItemWire[] {
  return readViews(db, directory, calendar, range, looker, wanted).items;
}

function viewRows(
  db: Connection,
  directory: Directory,
  rows: Iterable<OccurrenceRow>,
  width: Width,
  { decision, person, ownersIds, sealAs }: Looker,
  { after = 0, most = MOST_ITEMS_IN_ANSWER }: Wanted = {},
): Pick<ViewsOf, 'items' | 'of' | 'more'> {
  const reader = readerOf(decision);
  const sealed: Sealed[] = [];
  const unnamed: Record<string, unknown>[] = [];
  const views: Record<string, unknown>[] = [];
  const of: ViewedOccurrence[] = [];
  let seen = 0;
  let bytes = 0;
  let more: number | null = null;
  for (const narrow of rows) {
    const standing = standingOf(narrow, person);
    const row = wideEnough(db, narrow, width, standing, reader, directory);
    if (row === null) continue;
    const item = new RowItem(row, directory);
    const view = reader.view(item, standing);
    if (view === null || ++seen <= after) continue;
    const full = 'notes' in view;
    bytes += full ? sizeOf(row) : SMALL;
    if (views.length >= most || (bytes > MOST_BYTES_IN_ANSWER && views.length > 0)) {
      more = after + views.length;
      break;
    }
    const wire = view as unknown as Record<string, unknown>;
    const may = reader.may(item, standing);
    if (full) {
      wire.id = idOf(row);
      if (row.long !== 0) wire.atItem = leftWith(row.long, 'briefing' in view);
      if (isCalledHere(wire.organiser, row, directory)) wire.calledHere = true;
      arrange(wire, row, may, decision, directory);
    } else {
      if (may.remove) wire.mayRemove = true;
      if (may.answer) wire.mayAnswer = true;
      if (ownersIds) wire.id = idOf(row);
      else {
        sealed.push({ viewer: person?.id ?? sealAs ?? 0, item: row.id, start: row.at });
        unnamed.push(wire);
      }
    }
    if (decision.rights.suggest && may.suggest) wire.maySuggest = true;
    views.push(wire);
    of.push({ item: row.id, start: row.at, end: row.until, row: full ? row : null });
  }
  const ids = sealIds(sealed);
  for (let i = 0; i < unnamed.length; i++) (unnamed[i] as Record<string, unknown>).id = ids[i];
  return { items: views as unknown as ItemWire[], of, more };
}

const SMALL = 160;

/** About what a full view of a row takes in an answer. */
const sizeOf = (row: OccurrenceRow): number => TEXT_COLUMNS.reduce((sum, name) => sum + (row[name]?.length ?? 0), 800);
const TEXT_COLUMNS = [
  ...CONTENT_FIELDS.filter((name) => specOf(name).type !== 'choice'),
  'attendees',
  'added',
  'left_out',
] as const;

/** The fields that a list leaves with the item because they are long, among those that the view has. */
function leftWith(long: number, briefed: boolean): NonNullable<ItemWire['atItem']> {
  const names = Object.keys(LONG) as (keyof typeof LONG)[];
  return names.filter((name) => (long & LONG[name]) !== 0 && (briefed || specOf(name).sight !== 'briefed'));
}

/** Whether whose calendar it is calls the meeting. */
const isCalledHere = (organiser: unknown, row: OccurrenceRow, directory: Directory): boolean =>
  organiser !== null && sameAddress((organiser as Party).address, directory.ownerOf(row.calendar_id)?.address ?? '');

function arrange(
  wire: Record<string, unknown>,
  row: OccurrenceRow,
  may: MayItem,
  decision: Decision,
  directory: Directory,
): void {
  if (may.change || may.remove) {
    // What others call stays where it is, and so does what stands for one occurrence: its series moves.
    const move = may.remove && mayRun(decision).whole && row.owner_invited === 0 && row.series_id === null;
    wire.may = { change: may.change, remove: may.remove, move };
    wire.version = row.version;
  }
  if (may.answer) wire.mayAnswer = true;
  const asSet = asSetOf(row, decision, directory);
  if (asSet) wire.asSet = asSet;
}

/** Rows are read no wider than the calendar's sight needs; the few items seen at more are read again, whole. */
function wideEnough(
  db: Connection,
  row: OccurrenceRow,
  width: Width,
  standing: Standing,
  reader: Reader,
  directory: Directory,
): OccurrenceRow | null {
  if (width === 'briefed' || width === 'full' || width === 'whole') return row;
  const seen = reader.seen(new RowItem(row, directory), standing);
  if (seen === null) return null;
  const enough =
    seen === 'busy' || seen === 'withheld' || (width === 'outline' && (seen === 'title' || seen === 'outline'));
  if (enough) return row;
  const whole = itemById(db, row.id);
  return whole && asListed(rowOf(whole, row.at, row.until));
}

/**
 * What one looker gets, cut to what another sees of the same occurrences: each row is projected for both, and a field stays only
 * where both have it. With `through` missing, the looker's views whole. Nothing here can be acted on.
 */
export function viewsThrough(
  db: Connection,
  directory: Directory,
  calendar: Calendar,
  range: Range,
  looker: Looker,
  through: Looker | null,
  after = 0,
): Views {
  const bare = (view: ItemWire): ItemWire => {
    const {
      may: _may,
      maySuggest: _forward,
      mayRemove: _remove,
      mayAnswer: _answer,
      calledHere: _called,
      asSet: _asSet,
      version: _version,
      ...plain
    } = view;
    return plain;
  };
  if (!through) {
    const views = readViews(db, directory, calendar, range, looker, { after });
    return { ...views, items: views.items.map(bare) };
  }
  if (looker.decision.rights.sight === 'nothing' || through.decision.rights.sight === 'nothing')
    return { items: [], more: null, unread: false };
  const { rows, unread } = rowsIn(db, calendar, range, 'briefed');
  const items: ItemWire[] = [];
  let seen = 0;
  let more: number | null = null;
  for (const row of rows) {
    const theirs = viewRows(db, directory, [row], 'briefed', looker).items[0];
    const mine = viewRows(db, directory, [row], 'briefed', through).items[0];
    if (!theirs || !mine || ++seen <= after) continue;
    if (items.length >= MOST_SEEN_THROUGH) {
      more = after + items.length;
      break;
    }
    const common = Object.fromEntries(
      Object.entries(bare(theirs)).filter(([field]) => field in mine),
    ) as unknown as ItemWire;
    // The withheld mark is set where either of the two looks is withheld, except where the audience gets no mark.
    const withheld = theirs.withheld || (mine.withheld && 'title' in theirs);
    // Numbered by what is shown, so that a gap never tells of what isn't.
    items.push({ ...common, id: `seen-${after + items.length}`, ...(withheld ? { withheld: true as const } : {}) });
  }
  return { items, more, unread };
}

/** What is projected twice, and looked at through two pairs of eyes, comes in smaller answers. */
const MOST_SEEN_THROUGH = 1000;

/** The id of a row's occurrence, seen in full. */
const idOf = ({ key, rule, added, at }: OccurrenceRow): string =>
  occurrenceId(key, rule === null && added === '[]' ? null : at);

/** The views of some rows for one looker, those they get none of left out. */
export function viewsOfRows(
  db: Connection,
  directory: Directory,
  rows: Iterable<OccurrenceRow>,
  looker: Looker,
): ItemWire[] {
  return viewRows(db, directory, rows, 'briefed', looker).items;
}

/** The number ids are sealed for where a link looks: beyond all people's, so that no link's ids are anybody's. */
export const sealedForLink = (id: number): number => 2 ** 31 + id;

/** The view of one row for one looker; `null` where they get none. */
export function viewOfRow(db: Connection, directory: Directory, row: OccurrenceRow, looker: Looker): ItemWire | null {
  return viewRows(db, directory, [row], 'briefed', looker).items[0] ?? null;
}
