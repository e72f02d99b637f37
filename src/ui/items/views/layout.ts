import type { ItemWire } from '@/contract/items/items.ts';
import { takesTime } from '@/core/calendar/index.ts';
import { journeyMinutes, samePlace } from '@/core/openings/index.ts';
import { DAY, MINUTE, wallsOf } from '../../common/times.ts';

/** A piece of an item on one day of a board. Minutes count from the day's start; lanes stand side by side. */
export interface Placed {
  readonly item: ItemWire;
  readonly top: number;
  readonly height: number;
  readonly lane: number;
  readonly lanes: number;
  readonly clash: boolean;
  readonly starts: boolean;
}

/** A whereabouts on one day: a band at the day's edge. */
interface Rail {
  readonly item: ItemWire;
  readonly top: number;
  readonly height: number;
}

/** An all-day item over days `from` to `to` (not included) of the board. */
export interface Bar {
  readonly item: ItemWire;
  readonly from: number;
  readonly to: number;
}

export interface Layout {
  readonly days: readonly (readonly Placed[])[];
  readonly rails: readonly (readonly Rail[])[];
  readonly bars: readonly Bar[];
}

/** An hour's height on a board, in pixels. */
export const HOUR_PX = 46;

const SHORTEST = 20;
const WHOLE_DAY = 24 * 60;

const laidOut = new WeakMap<readonly ItemWire[], { readonly of: string; readonly layout: Layout }>();

/**
 * Lays the items of a board out: by day, in lanes where they overlap. Pure; `first` is the first day's start as wall time. The same list over the
 * same days is laid out once, whoever asks: a list must not be changed after. Where items of several people are in one list, `whoseOf` says whose each
 * is: what different people do at one time is no clash.
 */
export function layOut(
  items: readonly ItemWire[],
  first: number,
  count: number,
  zone: string,
  whoseOf: WhoseOf = oneOwner,
): Layout {
  const of = `${first} ${count} ${zone}`;
  const before = laidOut.get(items);
  if (before?.of === of) return before.layout;
  const layout = layOutAnew(items, first, count, zone, whoseOf);
  laidOut.set(items, { of, layout });
  return layout;
}

/** Whose an item is, where several people's lie over each other; `null` where all are one's. */
export type WhoseOf = (item: ItemWire) => string | null;
const oneOwner: WhoseOf = () => null;

function layOutAnew(items: readonly ItemWire[], first: number, count: number, zone: string, whoseOf: WhoseOf): Layout {
  const pieces: { item: ItemWire; top: number; bottom: number; starts: boolean }[][] = Array.from(
    { length: count },
    () => [],
  );
  const rails: Rail[][] = Array.from({ length: count }, () => []);
  const bars: Bar[] = [];
  for (const item of items) {
    const { start, end } = wallsOf(item, zone);
    const from = Math.max(0, Math.floor((start - first) / DAY));
    const to = Math.min(count, Math.ceil((Math.max(end, start + 1) - first) / DAY));
    if (from >= count || to <= 0) continue;
    if (item.allDay || end - start >= 20 * 60 * MINUTE) {
      bars.push({ item, from, to });
      continue;
    }
    for (let day = from; day < to; day++) {
      const top = Math.max(0, (start - first - day * DAY) / MINUTE);
      const bottom = Math.min(WHOLE_DAY, (end - first - day * DAY) / MINUTE);
      if (item.kind === 'whereabouts') rails[day]?.push({ item, top, height: bottom - top });
      else
        pieces[day]?.push({ item, top, bottom: Math.max(bottom, top + SHORTEST), starts: start >= first + day * DAY });
    }
  }
  return { days: pieces.map((list) => inLanes(list, whoseOf)), rails, bars };
}

function inLanes(list: { item: ItemWire; top: number; bottom: number; starts: boolean }[], whoseOf: WhoseOf): Placed[] {
  list.sort((a, b) => a.top - b.top || b.bottom - a.bottom);
  const placed: Placed[] = [];
  let cluster: { piece: (typeof list)[number]; lane: number; clash: boolean }[] = [];
  let reach = -1;
  const flush = () => {
    const lanes = Math.max(1, ...cluster.map((c) => c.lane + 1));
    for (const { piece, lane, clash } of cluster)
      placed.push({
        item: piece.item,
        top: piece.top,
        height: piece.bottom - piece.top,
        lane,
        lanes,
        clash,
        starts: piece.starts,
      });
    cluster = [];
  };
  for (const piece of list) {
    if (piece.top >= reach) flush();
    const taken = new Set(cluster.filter((c) => c.piece.bottom > piece.top).map((c) => c.lane));
    let lane = 0;
    while (taken.has(lane)) lane++;
    const clash =
      takesTime(piece.item) &&
      cluster.some(
        (c) => c.piece.bottom > piece.top && takesTime(c.piece.item) && whoseOf(c.piece.item) === whoseOf(piece.item),
      );
    cluster.push({ piece, lane, clash });
    reach = Math.max(reach, piece.bottom);
  }
  flush();
  return placed;
}

/** The shape an item is drawn in, told apart without colour. */
export function shapeOf(
  item: ItemWire,
): 'withheld' | 'hold' | 'plain-busy' | 'free' | 'reachable' | 'tentative' | 'away' | 'busy' {
  if (item.withheld) return 'withheld';
  if (item.kind === 'hold') return 'hold';
  if (item.shows !== 'busy') return item.shows;
  return item.title === undefined ? 'plain-busy' : 'busy';
}

/** The way between two items of a day at different places: when the first ends, the minutes it takes and those there are. */
export interface Joint {
  readonly key: string;
  readonly top: number;
  readonly gap: number;
  readonly minutes: number;
}

/** The ways between what follows each other on a day, where a table knows how long they take. */
export function jointsOf(placed: readonly Placed[], journeys: readonly (readonly [string, string, number])[]): Joint[] {
  if (journeys.length === 0) return [];
  const travel = journeyMinutes(journeys);
  const there = placed
    .filter(({ item }) => takesTime(item) && samePlace(item.place) !== '')
    .sort((a, b) => a.top - b.top);
  return there.flatMap((one, i): Joint[] => {
    const next = there[i + 1];
    const minutes = next && travel(samePlace(one.item.place), samePlace(next.item.place));
    const end = one.top + one.height;
    if (!next || !minutes || next.top < end) return [];
    return [{ key: `${one.item.id} ${next.item.id}`, top: end, gap: next.top - end, minutes }];
  });
}
