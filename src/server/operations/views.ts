import type { ItemWire } from '@/contract/items.ts';
import { type Decision, type MayItem, type Reader, readerOf, type Standing } from '@/core/access/index.ts';
import { dateText } from '@/core/time/index.ts';
import type { Connection } from '../db/index.ts';
import { happeningId, type Sealed, sealIds } from '../ids.ts';
import type { HappeningRow, Width } from '../repositories/happening-row.ts';
import { itemById } from '../repositories/items.ts';
import { happeningsIn } from '../repositories/occurrences.ts';
import type { Person } from '../repositories/people.ts';
import type { Directory } from './directory.ts';
import { asSetOf, RowItem, rowOf, standingOf } from './row-item.ts';

/** Days of a calendar: instants in epoch milliseconds for what has hours, dates for what is all day. */
export interface Range {
  readonly from: number;
  readonly to: number;
  readonly fromDate: string;
  readonly toDate: string;
}

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
  if (decision.owner || (decision.rights.change === 'all' && decision.rights.speaks)) return 'briefed';
  const { sight } = decision.rights;
  return sight === 'full' ? 'full' : sight === 'busy' ? 'deciding' : 'outline';
}

/**
 * The views of what happens in a range, for one looker, in order of start. The only way from rows to an answer: the week
 * board, the previews in Sightlines, the ribbon and the file all come through here.
 */
export function viewsIn(
  db: Connection,
  directory: Directory,
  calendarId: number,
  range: Range,
  looker: Looker,
): ItemWire[] {
  if (looker.decision.rights.sight === 'nothing') return [];
  const width = widthFor(looker);
  return viewRows(db, directory, rowsIn(db, calendarId, range, width), width, looker);
}

function rowsIn(db: Connection, calendarId: number, range: Range, width: Width): HappeningRow[] {
  return happeningsIn(db, calendarId, range.from, range.to, width)
    .filter((row) => !row.all_day || (dateText(row.at) < range.toDate && dateText(row.until) > range.fromDate))
    .sort((a, b) => a.at - b.at || a.id - b.id);
}

function viewRows(
  db: Connection,
  directory: Directory,
  rows: readonly HappeningRow[],
  width: Width,
  { decision, person, ownersIds, sealAs }: Looker,
): ItemWire[] {
  const reader = readerOf(decision);
  const sealed: Sealed[] = [];
  const unnamed: Record<string, unknown>[] = [];
  const views: Record<string, unknown>[] = [];
  for (const narrow of rows) {
    const standing = standingOf(narrow, person);
    const row = wideEnough(db, narrow, width, standing, reader, directory);
    if (row === null) continue;
    const item = new RowItem(row, directory);
    const view = reader.view(item, standing);
    if (view === null) continue;
    const wire = view as unknown as Record<string, unknown>;
    if ('notes' in view) {
      wire.id = idOf(row);
      arrange(wire, row, reader.may(item, standing), decision, directory);
    } else if (ownersIds) wire.id = idOf(row);
    else {
      sealed.push({ viewer: person?.id ?? sealAs ?? 0, item: row.id, start: row.at });
      unnamed.push(wire);
    }
    if (decision.rights.suggest && reader.may(item, standing).suggest) wire.maySuggest = true;
    views.push(wire);
  }
  const ids = sealIds(sealed);
  for (let i = 0; i < unnamed.length; i++) (unnamed[i] as Record<string, unknown>).id = ids[i];
  return views as unknown as ItemWire[];
}

function arrange(
  wire: Record<string, unknown>,
  row: HappeningRow,
  may: MayItem,
  decision: Decision,
  directory: Directory,
): void {
  if (may.change || may.remove) {
    wire.may = { change: may.change, remove: may.remove };
    wire.version = row.version;
  }
  const asSet = asSetOf(row, decision, directory);
  if (asSet) wire.asSet = asSet;
}

/** Rows are read no wider than the calendar's sight needs; the few items seen at more are read again, whole. */
function wideEnough(
  db: Connection,
  row: HappeningRow,
  width: Width,
  standing: Standing,
  reader: Reader,
  directory: Directory,
): HappeningRow | null {
  if (width === 'briefed' || width === 'full') return row;
  const seen = reader.seen(new RowItem(row, directory), standing);
  if (seen === null) return null;
  const enough =
    seen === 'busy' || seen === 'withheld' || (width === 'outline' && (seen === 'title' || seen === 'outline'));
  if (enough) return row;
  const whole = itemById(db, row.id);
  return whole && rowOf(whole, row.at, row.until);
}

/**
 * What one looker gets, cut to what another sees of the same happenings: each row is projected for both, and a field stays only
 * where both have it. With `through` missing, the looker's views whole. Nothing here can be acted on.
 */
export function viewsThrough(
  db: Connection,
  directory: Directory,
  calendarId: number,
  range: Range,
  looker: Looker,
  through: Looker | null,
): ItemWire[] {
  const bare = (view: ItemWire): ItemWire => {
    const { may: _may, maySuggest: _forward, asSet: _asSet, version: _version, ...plain } = view;
    return plain;
  };
  if (!through) return viewsIn(db, directory, calendarId, range, looker).map(bare);
  if (looker.decision.rights.sight === 'nothing' || through.decision.rights.sight === 'nothing') return [];
  return rowsIn(db, calendarId, range, 'briefed').flatMap((row, i) => {
    const theirs = viewRows(db, directory, [row], 'briefed', looker)[0];
    const mine = viewRows(db, directory, [row], 'briefed', through)[0];
    if (!theirs || !mine) return [];
    const common = Object.fromEntries(
      Object.entries(bare(theirs)).filter(([field]) => field in mine),
    ) as unknown as ItemWire;
    // The marker is no field: what is withheld from either is marked, save where the audience itself gets no marker.
    const withheld = theirs.withheld || (mine.withheld && 'title' in theirs);
    return [{ ...common, id: `seen-${i}`, ...(withheld ? { withheld: true as const } : {}) }];
  });
}

/** The id of a row's happening, seen in full. */
const idOf = ({ key, rule, added, at }: HappeningRow): string =>
  happeningId(key, rule === null && added === '[]' ? null : at);

/** The view of one row for one looker; `null` where they get none. */
export function viewOfRow(db: Connection, directory: Directory, row: HappeningRow, looker: Looker): ItemWire | null {
  return viewRows(db, directory, [row], 'briefed', looker)[0] ?? null;
}
