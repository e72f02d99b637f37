import { fromWallLenient, toWall } from '../time/index.ts';
import type { Journey, OpeningsPerson, OpeningsRequest } from './request.ts';
import { findOpenings } from './search.ts';

const MINUTE = 60_000;
const WEEK = 7 * 86_400_000;

/** A start of the first week, and the occurrences of its series (epoch minutes) that fail, each with those of `must` for whom it does. */
export interface SeriesStart {
  readonly start: number;
  readonly fits: number;
  readonly fails: readonly { readonly at: number; readonly who: readonly string[] }[];
}

/**
 * For every start in the first week and every so many weeks after it, by the request's clock: in how many of `times` it is an opening. Those
 * that fit most often first, equal ones the earlier first; of an hour that comes twice the first stands for both. `request.until` has to lie
 * behind the last of them; `cut` where not all of the grid was looked at.
 */
export function findSeriesOpenings(
  request: OpeningsRequest,
  people: readonly OpeningsPerson[],
  journeys: readonly Journey[],
  every: number,
  times: number,
): { readonly starts: readonly SeriesStart[]; readonly cut: boolean } {
  const all = findOpenings(request, people, journeys);
  const open = new Set(all.starts);
  const musts = people.filter((one) => one.need === 'must');
  // Of a start that fails for all it is said for whom: each has openings of their own.
  const alone = musts.map((one) => {
    const at = request.at.filter((id) => id === one.id);
    return { id: one.id, open: new Set(findOpenings({ ...request, at }, [one], journeys).starts) };
  });
  const firstWeek = toWall(request.zone, request.from * MINUTE) + WEEK;
  const tried = new Set<number>();
  const starts: SeriesStart[] = [];
  for (const one of all.starts) {
    // Any occurrence that fits belongs to a series whose first lies in the first week.
    const wall = toWall(request.zone, one * MINUTE);
    const back = wall < firstWeek ? 0 : Math.ceil((wall - firstWeek + 1) / (every * WEEK));
    const first = wall - back * every * WEEK;
    if (tried.has(first)) continue;
    tried.add(first);
    const list = Array.from(
      { length: times },
      (_, n) => fromWallLenient(request.zone, first + n * every * WEEK) / MINUTE,
    );
    const [start] = list;
    // An hour that a clock change leaves out of the first week is no start of it.
    if (start === undefined || toWall(request.zone, start * MINUTE) !== first) continue;
    if (start < request.from || start < request.now + request.notice) continue;
    const fails = list
      .filter((at) => !open.has(at))
      .map((at) => ({ at, who: alone.filter((must) => !must.open.has(at)).map(({ id }) => id) }));
    if (fails.length < times) starts.push({ start, fits: times - fails.length, fails });
  }
  starts.sort((a, b) => b.fits - a.fits || a.start - b.start);
  return { starts, cut: all.cut };
}
