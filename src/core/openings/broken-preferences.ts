import { ready } from './person.ts';
import { breaksPreference } from './preferences.ts';
import type { OpeningsPerson, OpeningsRequest, TimePreference } from './request.ts';

/** The standing wishes of somebody that a meeting `[from, to)` (epoch minutes) would break, as rule 7 reads them, hard and soft alike. */
export function brokenPreferences(
  person: OpeningsPerson,
  request: OpeningsRequest,
  from: number,
  to: number,
): TimePreference[] {
  const { hard } = ready(person, request);
  return person.keeps.filter((preference) => breaksPreference(preference, person.zone, hard, from, to));
}
