import { DAY, datesOf, dayOn, longestFree, merged, rangeOn, takenIn, weekdayOf } from './clock.ts';
import type { Span, TimePreference } from './request.ts';

/**
 * Whether a meeting `[from, to)` breaks a preference of somebody whose hard time (merged) is `hard`, on their own clock. Time that they have
 * taken without it breaks nothing.
 */
export function breaksPreference(
  preference: TimePreference,
  zone: string,
  hard: readonly Span[],
  from: number,
  to: number,
): boolean {
  const meeting: Span = [from, to];
  switch (preference.kind) {
    case 'span':
      return datesNear(zone, meeting).some((date) => {
        if (!preference.days.includes(weekdayOf(date))) return false;
        const [a, b] = rangeOn(zone, date, preference.from, preference.to);
        return a < b && from < b && to > a && from < to;
      });
    case 'rest': {
      const taken = merged([...hard, meeting]);
      return datesOf(zone, meeting).some((date) => {
        if (!preference.days.includes(weekdayOf(date))) return false;
        const [a, b] = rangeOn(zone, date, preference.from, preference.to);
        return longestFree(taken, a, b) < preference.minutes && longestFree(hard, a, b) >= preference.minutes;
      });
    }
    case 'most': {
      const taken = merged([...hard, meeting]);
      return datesOf(zone, meeting).some((date) => {
        const [a, b] = dayOn(zone, date);
        return takenIn(taken, a, b) > preference.minutes;
      });
    }
    case 'pause': {
      const [a, b] = [from - DAY, to + DAY];
      const near = merged([...hard.flatMap(([x, y]): Span[] => [[Math.max(x, a), Math.min(y, b)]]), meeting]);
      const at = near.findIndex(([x, y]) => x <= from && y >= to);
      let first = at;
      let last = at;
      const gap = (i: number) => (near[i + 1] as Span)[0] - (near[i] as Span)[1];
      while (first > 0 && gap(first - 1) < preference.minutes) first--;
      while (last < near.length - 1 && gap(last) < preference.minutes) last++;
      return (near[last] as Span)[1] - (near[first] as Span)[0] > preference.after;
    }
    default:
      return preference satisfies never;
  }
}

/** The dates whose ranges may meet an interval: those it touches, and those beside them where a clock change moves a range. */
const datesNear = (zone: string, [from, to]: Span): number[] => datesOf(zone, [from - DAY, to + DAY]);

/** Minutes on either side of a meeting that can matter to a wish: its dates, a day before and after, and a clock change. */
const AROUND = 3 * DAY;

/** What of some merged time lies near enough to a meeting to matter to any wish. */
export const nearTo = (hard: readonly Span[], from: number, to: number): readonly Span[] =>
  hard.filter(([a, b]) => b > from - AROUND && a < to + AROUND);
