import type { Journey } from './request.ts';

/** A place as journeys know it: case and the space around it count for nothing; '' where there is none. */
export const samePlace = (text: string | null | undefined): string => (text ?? '').trim().toLowerCase();

/**
 * How many minutes it takes from one place to another, either way, by a table of journeys; the longest where it names two, 0 where it
 * names none or the places are one. Asked with places as `samePlace` gives them.
 */
export function journeyMinutes(journeys: readonly Journey[]): (a: string, b: string) => number {
  const table = new Map<string, number>();
  for (const [a, b, minutes] of journeys) {
    for (const key of [`${samePlace(a)}\n${samePlace(b)}`, `${samePlace(b)}\n${samePlace(a)}`])
      table.set(key, Math.max(table.get(key) ?? 0, minutes));
  }
  return (a, b) => (a === b ? 0 : (table.get(`${a}\n${b}`) ?? 0));
}
