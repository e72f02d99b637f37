import { DAY, dateOf, dayOn, longestFree, rangeOn, takenIn, weekdayOf } from './clock.ts';
import { ready } from './person.ts';
import type { OpeningsPerson, OpeningsRequest, Span, TimePreference } from './request.ts';

const DAY_MS = DAY * 60_000;

/**
 * The dates (milliseconds as if UTC) from `from` on, before `until` (epoch minutes), on which somebody's time as it is breaks each of their standing
 * wishes, as rule 7 reads them; in the order of the wishes.
 */
export function brokenDays(person: OpeningsPerson, request: OpeningsRequest): number[][] {
  const { hard } = ready(person, request);
  const { zone } = person;
  const dates: number[] = [];
  for (let date = dateOf(zone, request.from); dayOn(zone, date)[0] < request.until; date += DAY_MS) dates.push(date);
  return person.keeps.map((preference) => dates.filter((date) => isBroken(preference, zone, hard, date)));
}

function isBroken(preference: TimePreference, zone: string, hard: readonly Span[], date: number): boolean {
  const day = dayOn(zone, date);
  if ((preference.kind === 'span' || preference.kind === 'rest') && !preference.days.includes(weekdayOf(date)))
    return false;
  switch (preference.kind) {
    case 'span': {
      const [a, b] = rangeOn(zone, date, preference.from, preference.to);
      return a < b && hard.some(([from, to]) => from < b && to > a);
    }
    case 'rest': {
      const [a, b] = rangeOn(zone, date, preference.from, preference.to);
      return a < b && longestFree(hard, a, b) < Math.min(preference.minutes, b - a);
    }
    case 'most':
      return takenIn(hard, ...day) > preference.minutes;
    case 'pause': {
      // Stretches in a row, with less than the pause between them, that begin on that day.
      let begin: number | null = null;
      let last = Number.NEGATIVE_INFINITY;
      for (const [from, to] of hard) {
        if (begin === null || from - last >= preference.minutes) begin = from;
        last = to;
        if (begin >= day[0] && begin < day[1] && last - begin > preference.after) return true;
      }
      return false;
    }
    default:
      return preference satisfies never;
  }
}
