/** Something that took time, as whoever reads the report sees it; instants in epoch milliseconds, the end not included. */
export interface TimeUseItem {
  readonly start: number;
  readonly end: number;
  /** `null` where the reader doesn't see what it is. */
  readonly kind: string | null;
  readonly categories: readonly string[];
  /** Who else was there, by address. */
  readonly people: readonly string[];
  /** Whether somebody from outside was there; `null` where the reader doesn't see who was. */
  readonly outside: boolean | null;
}

interface Minutes {
  readonly name: string;
  readonly minutes: number;
}

/** What somebody's time went to. Minutes are whole, rounded down at the end. */
interface TimeUse {
  /** Taken at all: what lies over another counts once. */
  readonly total: number;
  /** By kind, category and side what lies over another counts for each. `''`: the reader doesn't see it, or it has none. */
  readonly kinds: readonly Minutes[];
  readonly categories: readonly Minutes[];
  readonly people: readonly (Minutes & { readonly times: number })[];
  readonly sides: {
    readonly alone: number;
    readonly inside: number;
    readonly outside: number;
    readonly unseen: number;
  };
  /** Week by week, by the instant each begins. */
  readonly weeks: readonly { readonly from: number; readonly total: number; readonly kinds: readonly Minutes[] }[];
}

/** A share that is wished for: of a kind, of a category, or of meetings with people from outside. */
type ShareBy = 'kind' | 'category' | 'side';
export interface TimeShare {
  readonly by: ShareBy;
  readonly name: string;
  /** Of all hours taken, in percent. */
  readonly percent: number;
}

const MINUTE = 60_000;

/**
 * Adds up what somebody's time went to over some weeks (each from an instant to an instant, in order, none over another); what lies outside them
 * doesn't count. Pure. Most time first, then by name.
 */
export function timeUse(items: readonly TimeUseItem[], weeks: readonly (readonly [number, number])[]): TimeUse {
  const kinds = new Tally();
  const categories = new Tally();
  const people = new Tally();
  const times = new Map<string, number>();
  const sides = { alone: 0, inside: 0, outside: 0, unseen: 0 };
  const byWeek = weeks.map(([from, to]) => {
    const here = new Tally();
    const spans: [number, number][] = [];
    for (const item of items) {
      const [start, end] = [Math.max(item.start, from), Math.min(item.end, to)];
      if (end <= start) continue;
      const length = end - start;
      spans.push([start, end]);
      for (const tally of [kinds, here]) tally.add(item.kind ?? '', length);
      for (const name of item.categories.length > 0 ? new Set(item.categories) : ['']) categories.add(name, length);
      for (const address of new Set(item.people)) {
        people.add(address, length);
        // Counted where it begins, or where the period does.
        if (start === item.start || from === weeks[0]?.[0]) times.set(address, (times.get(address) ?? 0) + 1);
      }
      sides[sideOf(item)] += length;
    }
    return { from, union: union(spans), here };
  });
  return {
    total: minutes(byWeek.reduce((sum, week) => sum + week.union, 0)),
    kinds: kinds.list(),
    categories: categories.list(),
    people: people.list().map((one) => ({ ...one, times: times.get(one.name) ?? 0 })),
    sides: {
      alone: minutes(sides.alone),
      inside: minutes(sides.inside),
      outside: minutes(sides.outside),
      unseen: minutes(sides.unseen),
    },
    weeks: byWeek.map((week) => ({ from: week.from, total: minutes(week.union), kinds: week.here.list() })),
  };
}

const minutes = (length: number): number => Math.floor(length / MINUTE);

const sideOf = ({ outside, people }: TimeUseItem): keyof TimeUse['sides'] =>
  outside === null ? 'unseen' : outside ? 'outside' : people.length > 0 ? 'inside' : 'alone';

class Tally {
  private readonly lengths = new Map<string, number>();

  add(name: string, length: number): void {
    this.lengths.set(name, (this.lengths.get(name) ?? 0) + length);
  }

  list(): Minutes[] {
    return [...this.lengths]
      .map(([name, length]) => ({ name, minutes: minutes(length) }))
      .sort((a, b) => b.minutes - a.minutes || (a.name < b.name ? -1 : 1));
  }
}

/** How long some spans are together, what they share counted once. */
function union(spans: readonly [number, number][]): number {
  let [sum, reached] = [0, Number.NEGATIVE_INFINITY];
  for (const [start, end] of [...spans].sort((a, b) => a[0] - b[0])) {
    if (end <= reached) continue;
    sum += end - Math.max(start, reached);
    reached = end;
  }
  return sum;
}
