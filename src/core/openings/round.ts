import { merged } from './clock.ts';
import { type Ready, ready } from './person.ts';
import { breaksPreference, nearTo } from './preferences.ts';
import { costsOf, type Reason } from './rank.ts';
import type { Journey, OpeningsPerson, OpeningsRequest, Span } from './request.ts';
import { findOpenings } from './search.ts';

/** One meeting of a round: how many minutes, and who has to or may come, by their ids. */
export interface RoundMeeting {
  readonly id: string;
  readonly length: number;
  readonly people: readonly { readonly id: string; readonly need: 'must' | 'may' }[];
}

/** Where a meeting of a round is put, what that costs and why. */
export interface Placed {
  readonly id: string;
  readonly start: number;
  readonly cost: number;
  readonly reasons: readonly Reason[];
}

/** Ways that are tried at most. */
const MOST_TRIED = 1_000_000;
/** What looking at somebody's wishes counts as, beside trying a time. */
const CHECK_TRIES = 12;

interface Candidate {
  readonly start: number;
  readonly cost: number;
  readonly reasons: readonly Reason[];
}
interface MeetingSearch {
  readonly meeting: RoundMeeting;
  readonly candidates: readonly Candidate[];
  readonly musts: readonly Ready[];
  readonly ids: ReadonlySet<string>;
}
interface At {
  readonly search: MeetingSearch;
  readonly at: Candidate;
  readonly span: Span;
}

/**
 * Places several meetings with people in common, at the least sum of what their times cost: each is an opening by itself and with the
 * others as hard time of whom they share, and nobody is in two at once, known or not. `without` are those that have no opening at all;
 * `placed` is `null` where there is no way for all, and in the order of `meetings` where there is. `cut` where not every way could be tried.
 */
export function placeRound(
  request: OpeningsRequest,
  meetings: readonly RoundMeeting[],
  people: readonly OpeningsPerson[],
  journeys: readonly Journey[],
  forWhom: string,
): { readonly placed: readonly Placed[] | null; readonly without: readonly string[]; readonly cut: boolean } {
  let cut = false;
  const searches = meetings.map((meeting): MeetingSearch => {
    const theirs = people.flatMap((person) => {
      const attendee = meeting.people.find((one) => one.id === person.id);
      return attendee ? [{ ...person, need: attendee.need }] : [];
    });
    const own = { ...request, length: meeting.length };
    const found = findOpenings(own, theirs, journeys);
    cut ||= found.cut;
    const candidates = costsOf(own, theirs, found.starts, forWhom);
    return {
      meeting,
      candidates: candidates.sort((a, b) => a.cost - b.cost || a.start - b.start),
      musts: theirs.filter((one) => one.need === 'must' && one.known).map((one) => ready(one, own)),
      ids: new Set(meeting.people.map((one) => one.id)),
    };
  });
  const without = searches.filter((one) => one.candidates.length === 0).map((one) => one.meeting.id);
  if (without.length > 0) return { placed: null, without, cut };
  // Those with the fewest times first: what can't go anywhere else is put before what can.
  const order = [...searches].sort((a, b) => a.candidates.length - b.candidates.length);
  const search = new Search(request, order);
  const best = search.best();
  const placed =
    best &&
    inOrder(
      meetings.map((meeting) => placedOf(meeting.id, best)),
      meetings,
    );
  return { placed, without: [], cut: cut || search.cut };
}

/** Meetings that are alike, which cost the same wherever they go, in the order they were asked for. */
function inOrder(placed: readonly Placed[], meetings: readonly RoundMeeting[]): Placed[] {
  const likeness = meetings.map(({ length, people }) =>
    JSON.stringify([length, people.map(({ id, need }) => `${id} ${need}`).sort()]),
  );
  return placed.map((one, i) => {
    const alike = placed.filter((_, j) => likeness[j] === likeness[i]).sort((a, b) => a.start - b.start);
    const nth = likeness.slice(0, i).filter((like) => like === likeness[i]).length;
    return { ...(alike[nth] ?? one), id: one.id };
  });
}

function placedOf(id: string, best: readonly At[]): Placed {
  const { at } = best.find((one) => one.search.meeting.id === id) as At;
  return { id, start: at.start, cost: at.cost, reasons: at.reasons };
}

class Search {
  cut = false;
  private tried = 0;
  private least = Number.POSITIVE_INFINITY;
  private found: readonly At[] | null = null;
  /** What the meetings from each on cost at the very least. */
  private readonly rest: readonly number[];

  constructor(
    private readonly request: OpeningsRequest,
    private readonly order: readonly MeetingSearch[],
  ) {
    const rest = [0];
    for (const search of [...order].reverse()) rest.unshift((rest[0] ?? 0) + (search.candidates[0]?.cost ?? 0));
    this.rest = rest;
  }

  best(): readonly At[] | null {
    this.place([], 0);
    return this.found;
  }

  private place(so: readonly At[], cost: number): void {
    const search = this.order[so.length];
    if (!search) {
      if (so.every((one) => this.preferencesHold(one, so, true))) {
        this.least = cost;
        this.found = so;
      }
      return;
    }
    for (const at of search.candidates) {
      if (cost + at.cost + (this.rest[so.length + 1] ?? 0) >= this.least) return;
      if (++this.tried > MOST_TRIED) {
        this.cut = true;
        return;
      }
      const one: At = { search, at, span: [at.start, at.start + search.meeting.length] };
      if (so.some((other) => this.meet(one, other) || this.meet(other, one))) continue;
      const next = [...so, one];
      if (next.every((placed) => this.preferencesHold(placed, next, false))) this.place(next, cost + at.cost);
    }
  }

  /** Whether two meetings overlap for somebody who is in both, with padding for those who must be there. */
  private meet(one: At, other: At): boolean {
    const [from, to] = one.span;
    const over = from < other.span[1] && other.span[0] < to;
    if (over) for (const id of one.search.ids) if (other.search.ids.has(id)) return true;
    const [a, b] = [from - this.request.padBefore, to + this.request.padAfter];
    if (a >= other.span[1] || other.span[0] >= b) return false;
    return one.search.musts.some(({ person }) => other.search.ids.has(person.id));
  }

  /** Whether a meeting keeps the hard wishes of those who have to be there, with the others where they are; a rest only where all stand. */
  private preferencesHold(one: At, all: readonly At[], last: boolean): boolean {
    return one.search.musts.every(({ person, hard }) => {
      const wishes = person.keeps.filter((preference) => preference.hard && (last || preference.kind !== 'rest'));
      if (wishes.length === 0) return true;
      const others = all.filter((other) => other !== one && other.search.ids.has(person.id));
      if (others.length === 0) return true;
      this.tried += CHECK_TRIES;
      const taken = merged([...nearTo(hard, one.span[0], one.span[1]), ...others.map((other) => other.span)]);
      return wishes.every((preference) => !breaksPreference(preference, person.zone, taken, one.span[0], one.span[1]));
    });
  }
}
