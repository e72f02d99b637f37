import { gridStarts, inside, meets, merged } from './clock.ts';
import { openOf, type Ready } from './person.ts';
import { breaksPreference, nearTo } from './preferences.ts';
import type { Journey, Movable, OpeningsPerson, OpeningsRequest, Span, TimePreference } from './request.ts';
import { isThere, notBlocked, prepare, reaches, type Search } from './search.ts';

/** What would have to move so that a meeting fits: at what cost, to where, and when it begins then. Instants in epoch minutes. */
export interface Room {
  readonly cost: number;
  readonly start: number;
  readonly moves: readonly { readonly id: string; readonly start: number }[];
}

/** Placements that are tried before a search is given up. */
const MOST_STEPS = 3_000_000;
/** What looking at somebody's wishes counts as, beside trying a place. */
const CHECK_STEPS = 12;

/**
 * The cheapest way to make room: of all plans the least cost, then the fewest moves, then the earliest start; `null` where there is none
 * with so many moves. `cut` where it was given up before all was tried: what it found is a plan, but perhaps not the best.
 */
export function makeRoom(
  request: OpeningsRequest,
  people: readonly OpeningsPerson[],
  journeys: readonly Journey[],
  movable: readonly Movable[],
  mostMoves: number,
): { readonly room: Room | null; readonly cut: boolean } {
  const search = prepare(request, people, journeys);
  const blocked = notBlocked(search, (one) => one.hard);
  const starts = search.grid.filter((s, i) => blocked[i] === 0 && reaches(search, s) && isThere(search, s));
  const planner = new Planner(search, movable);
  const forced = new Map<string, { set: readonly number[]; starts: number[] }>();
  for (const start of starts) {
    const set = planner.forcedBy(start);
    if (set.length > mostMoves) continue;
    const key = set.join(' ');
    const known = forced.get(key);
    if (known) known.starts.push(start);
    else forced.set(key, { set, starts: [start] });
  }
  let cut = search.cut;
  // Of the sets that cost as much with as many moves, the one that begins earliest.
  for (const alike of subsets(planner, mostMoves)) {
    let best: Room | null = null;
    for (const { set, cost } of alike) {
      const has = new Set(set);
      const fitting = [...forced.values()].filter((f) => f.set.every((m) => has.has(m)));
      const candidates = fitting.flatMap((f) => f.starts).sort((a, b) => a - b);
      for (const start of candidates) {
        if (best !== null && start >= best.start) break;
        const moves = planner.place(set, start);
        if (moves === 'cut') return { room: best, cut: true };
        if (moves === null) continue;
        best = { cost, start, moves };
        break;
      }
    }
    if (best !== null) return { room: best, cut };
  }
  cut = cut || planner.steps > MOST_STEPS;
  return { room: null, cut };
}

interface CostedSet {
  readonly set: readonly number[];
  readonly cost: number;
}

/** Sets of movable items, none included, by what they cost together and then by how many they are: those alike in both together. */
function* subsets(planner: Planner, most: number): Generator<readonly CostedSet[]> {
  const able = planner.able;
  const sets: CostedSet[] = [{ set: [], cost: 0 }];
  const grow = (set: readonly number[], from: number, cost: number) => {
    if (set.length >= most) return;
    for (let i = from; i < able.length; i++) {
      const m = able[i] as number;
      const next = [...set, m];
      const sum = cost + planner.costOf(m);
      sets.push({ set: next, cost: sum });
      grow(next, i + 1, sum);
    }
  };
  grow([], 0, 0);
  sets.sort((a, b) => a.cost - b.cost || a.set.length - b.set.length);
  for (let i = 0; i < sets.length; ) {
    const { set, cost } = sets[i] as CostedSet;
    const alike: CostedSet[] = [];
    for (; i < sets.length && sets[i]?.cost === cost && sets[i]?.set.length === set.length; i++)
      alike.push(sets[i] as CostedSet);
    yield alike;
  }
}

/** Somebody's hard wishes, and their time near the start they are looked at for. */
interface Wish {
  readonly id: string;
  readonly zone: string;
  readonly near: readonly Span[];
  readonly preferences: readonly TimePreference[];
}

class Planner {
  /** Movable items that have another place to go at all, by their index. */
  readonly able: readonly number[];
  steps = 0;
  private readonly wishes = new Map<number, readonly Wish[]>();
  private readonly byId: Map<string, Ready>;
  /** Where each may go, whatever else moves: on the grid, within its range, its people's hours, and clear of what stays. */
  private readonly places: readonly (readonly number[])[];
  /** The people of each that are asked here. */
  private readonly attendees: readonly (readonly string[])[];

  constructor(
    private readonly search: Search,
    private readonly movable: readonly Movable[],
  ) {
    this.byId = new Map(search.people.map((one) => [one.person.id, one]));
    this.attendees = movable.map((m) => m.people.filter((id) => this.byId.has(id)));
    this.places = movable.map((m, i) => this.placesOf(m, this.attendees[i] as readonly string[]));
    this.able = movable.flatMap((_, i) => ((this.places[i] as readonly number[]).length > 0 ? [i] : []));
  }

  costOf(m: number): number {
    return (this.movable[m] as Movable).cost;
  }

  private placesOf(m: Movable, attendees: readonly string[]): readonly number[] {
    const { zone, grid, within } = this.search.request;
    const { starts } = gridStarts(zone, grid, m.from, m.until - m.length, 50_000);
    const ready = attendees.flatMap((id) => this.byId.get(id) ?? []);
    const hours = ready.flatMap(({ person }) =>
      within === 'hours' && person.hours !== null
        ? [openOf(person.hours, person.zone, m.from - 1440, m.until + 1440)]
        : [],
    );
    return starts.filter(
      (s) =>
        s !== m.start &&
        ready.every((one) => !meets(one.hard, s, s + m.length)) &&
        hours.every((open) => inside(open, s, s + m.length)),
    );
  }

  /** The items that have to move where the meeting begins at a start: those that stand in the padded time of a known `must`. */
  forcedBy(start: number): number[] {
    const { request, musts } = this.search;
    const [from, to] = [start - request.padBefore, start + request.length + request.padAfter];
    const must = new Set(musts.filter((one) => one.person.known).map((one) => one.person.id));
    return this.movable.flatMap((m, i) =>
      m.start < to && m.start + m.length > from && m.length > 0 && m.people.some((id) => must.has(id)) ? [i] : [],
    );
  }

  /** The hard wishes of those who have to be there, and their time around a start: no wish looks further than a day and its night. */
  private wishesAt(start: number): readonly Wish[] {
    const before = this.wishes.get(start);
    if (before) return before;
    const end = start + this.search.request.length;
    const wishes = this.search.musts.flatMap(({ person, hard }): Wish[] => {
      const preferences = person.known ? person.keeps.filter((preference) => preference.hard) : [];
      if (preferences.length === 0) return [];
      return [{ id: person.id, zone: person.zone, near: nearTo(hard, start, end), preferences }];
    });
    this.wishes.set(start, wishes);
    return wishes;
  }

  /** The time that some movable items take of a person's where they stand. */
  private spansOf(person: string, items: readonly number[]): Span[] {
    return items.flatMap((i): Span[] => {
      const { people, start, length } = this.movable[i] as Movable;
      return people.includes(person) ? [[start, start + length]] : [];
    });
  }

  /** Places for some items so that the meeting can begin at a start and all else stays; `null` where there are none. */
  place(set: readonly number[], start: number): Room['moves'] | null | 'cut' {
    const { request, musts } = this.search;
    const meeting: Span = [start, start + request.length];
    const padded: Span = [start - request.padBefore, meeting[1] + request.padAfter];
    const must = new Set(musts.filter((one) => one.person.known).map((one) => one.person.id));
    const moves = new Set(set);
    const staying = this.movable.flatMap((_, i) => (moves.has(i) ? [] : [i]));
    const put = new Map<number, number>();
    const shares = (a: number, b: number) =>
      (this.attendees[a] as readonly string[]).some((id) => (this.attendees[b] as readonly string[]).includes(id));
    const overlap = (s: number, m: number, [a, b]: Span) =>
      s < b && s + (this.movable[m] as Movable).length > a && a < b;
    const wishes = this.wishesAt(start).map((wish) => ({
      ...wish,
      // What of theirs stays where it is, and what moves.
      stay: merged([...wish.near, ...this.spansOf(wish.id, staying)]),
      moved: set.filter((m) => (this.movable[m] as Movable).people.includes(wish.id)),
    }));
    /** Whether the preferences of those who have something moved hold, as far as it is put; a rest only where all is. */
    const preferencesHold = (all: boolean): boolean =>
      wishes.every(({ zone, stay, moved, preferences }) => {
        if (moved.length === 0) return true;
        this.steps += CHECK_STEPS;
        const spans = moved.flatMap((m): Span[] => {
          const s = put.get(m);
          return s === undefined ? [] : [[s, s + (this.movable[m] as Movable).length]];
        });
        const taken = spans.length === 0 ? stay : merged([...stay, ...spans]);
        return preferences.every(
          (preference) =>
            (!all && preference.kind === 'rest') || !breaksPreference(preference, zone, taken, meeting[0], meeting[1]),
        );
      });
    // A wish that what stays breaks already is broken wherever the rest goes: found before any place is tried.
    for (const { zone, stay, moved, preferences } of wishes) {
      this.steps += CHECK_STEPS;
      for (const preference of preferences)
        if (
          (moved.length === 0 || preference.kind !== 'rest') &&
          breaksPreference(preference, zone, stay, meeting[0], meeting[1])
        )
          return null;
    }
    const options = set.map((m) => {
      const attendees = this.attendees[m] as readonly string[];
      const clear = attendees.some((id) => must.has(id)) ? padded : meeting;
      const stay = staying
        .filter((other) => shares(m, other))
        .map((other): Span => {
          const item = this.movable[other] as Movable;
          return [item.start, item.start + item.length];
        });
      return (this.places[m] as readonly number[]).filter((s) => {
        this.steps++;
        return (attendees.length === 0 || !overlap(s, m, clear)) && stay.every((span) => !overlap(s, m, span));
      });
    });
    if (options.some((list) => list.length === 0)) return null;
    const next = (i: number): boolean | 'cut' => {
      if (i === set.length) return preferencesHold(true);
      const m = set[i] as number;
      for (const s of options[i] as readonly number[]) {
        if (++this.steps > MOST_STEPS) return 'cut';
        const clash = set.slice(0, i).some((other) => {
          const at = put.get(other) as number;
          return shares(m, other) && overlap(s, m, [at, at + (this.movable[other] as Movable).length]);
        });
        if (clash) continue;
        put.set(m, s);
        const done = i + 1 < set.length && !preferencesHold(false) ? false : next(i + 1);
        if (done !== false) return done;
        put.delete(m);
      }
      return false;
    };
    const found = next(0);
    if (found === 'cut') return 'cut';
    return found ? set.map((m) => ({ id: (this.movable[m] as Movable).id, start: put.get(m) as number })) : null;
  }
}
