import { gridStarts, inside, merged } from './clock.ts';
import { journeyMinutes, samePlace } from './journeys.ts';
import { type Ready, ready } from './person.ts';
import { breaksPreference } from './preferences.ts';
import type { Journey, Movable, OpeningsPerson, OpeningsRequest, Span } from './request.ts';

/** Starts of the grid that are looked at in one search. */
const MOST_STARTS = 50_000;

/** Every instant (epoch minutes) at which the meeting could begin, in order; `cut` where not all of the grid was looked at. */
export interface Openings {
  readonly starts: readonly number[];
  readonly cut: boolean;
}

/** A search made ready: those asked, their journeys, and the starts of the grid with those ruled out by hours and what stays. */
export interface Search {
  readonly request: OpeningsRequest;
  readonly people: readonly Ready[];
  readonly musts: readonly Ready[];
  readonly grid: readonly number[];
  readonly cut: boolean;
  readonly travel: (a: string, b: string) => number;
}

export function prepare(
  request: OpeningsRequest,
  people: readonly OpeningsPerson[],
  journeys: readonly Journey[],
): Search {
  const all = people.map((person) => ready(person, request));
  const earliest = Math.max(request.from, request.now + request.notice);
  const { starts, cut } = gridStarts(request.zone, request.grid, earliest, request.until - request.length, MOST_STARTS);
  return {
    request,
    people: all,
    musts: all.filter(({ person }) => person.need === 'must'),
    grid: starts,
    cut,
    travel: journeyMinutes(journeys),
  };
}

/**
 * The starts that are openings. Worked out from nothing but the views that are handed over; of somebody who isn't known nothing counts but
 * their hours. Movable items count as hard time of their known people, without a place, where they stand.
 */
export function findOpenings(
  request: OpeningsRequest,
  people: readonly OpeningsPerson[],
  journeys: readonly Journey[] = [],
  movable: readonly Movable[] = [],
): Openings {
  const search = prepare(request, people, journeys);
  const standing = new Map(
    search.people.map((one) => [
      one.person.id,
      movable.length === 0 || !one.person.known ? one.hard : withMovable(one, movable),
    ]),
  );
  const hardOf = (one: Ready) => standing.get(one.person.id) ?? one.hard;
  const free = notBlocked(search, hardOf);
  const starts = search.grid.filter((start, i) => free[i] === 0 && fits(search, start, hardOf));
  return { starts, cut: search.cut };
}

function withMovable(one: Ready, movable: readonly Movable[]): readonly Span[] {
  const theirs = movable.filter((m) => m.people.includes(one.person.id));
  if (theirs.length === 0) return one.hard;
  return merged([...one.hard, ...theirs.map((m): Span => [m.start, m.start + m.length])]);
}

/** Marks, start by start of the grid, those that meet hard time of a `must` with its padding, or lie outside hours (rules 3 and 4). */
export function notBlocked(search: Search, hardOf: (one: Ready) => readonly Span[]): Uint8Array {
  const { grid, musts, request } = search;
  const { length, padBefore, padAfter } = request;
  const blocked = new Uint8Array(grid.length);
  // Starts s with from < s < to are ruled out.
  const rule = (from: number, to: number) => {
    for (let i = firstAfter(grid, from); i < grid.length && (grid[i] as number) < to; i++) blocked[i] = 1;
  };
  for (const must of musts) {
    if (must.person.known) for (const [a, b] of hardOf(must)) rule(a - length - padAfter, b + padBefore);
    if (request.within !== 'hours' || must.open === null) continue;
    let until = Number.NEGATIVE_INFINITY;
    for (const [a, b] of must.open) {
      // Outside: begins before this range and not within the one before, as far as all of it has to lie inside.
      rule(until - length, a);
      until = b;
    }
    rule(until - length, Number.POSITIVE_INFINITY);
  }
  return blocked;
}

function firstAfter(grid: readonly number[], at: number): number {
  let low = 0;
  let high = grid.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((grid[middle] as number) > at) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Whether a start that isn't blocked keeps to journeys, whereabouts and hard preferences (rules 5 to 7). */
function fits(search: Search, start: number, hardOf: (one: Ready) => readonly Span[]): boolean {
  return reaches(search, start) && isThere(search, start) && preferencesHold(search, start, hardOf);
}

/** Rule 5: the journeys from the last place before and to the first one after. */
export function reaches({ request, musts, travel }: Search, start: number): boolean {
  const place = samePlace(request.place);
  if (place === '') return true;
  const end = start + request.length;
  for (const { person, placed } of musts) {
    if (!person.known || placed.length === 0) continue;
    let before = Number.NEGATIVE_INFINITY;
    let after = Number.POSITIVE_INFINITY;
    for (const { span } of placed) {
      if (span[1] <= start) before = Math.max(before, span[1]);
      if (span[0] >= end) after = Math.min(after, span[0]);
    }
    for (const one of placed) {
      if (one.span[1] === before && before <= start && start - before < travel(one.place, place)) return false;
      if (one.span[0] === after && after >= end && after - end < travel(place, one.place)) return false;
    }
  }
  return true;
}

/** Rule 6: everybody who has to be at the place by their whereabouts is. */
export function isThere({ request, people }: Search, start: number): boolean {
  if (samePlace(request.place) === '') return true;
  return request.at.every((id) => {
    const one = people.find(({ person }) => person.id === id);
    return one?.person.known && inside(one.there, start, start + request.length);
  });
}

/** Rule 7: no hard preference of a known `must` is broken. */
function preferencesHold({ request, musts }: Search, start: number, hardOf: (one: Ready) => readonly Span[]): boolean {
  return musts.every(
    (must) =>
      !must.person.known ||
      must.person.keeps.every(
        (preference) =>
          !preference.hard ||
          !breaksPreference(preference, must.person.zone, hardOf(must), start, start + request.length),
      ),
  );
}
