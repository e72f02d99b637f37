import type { z } from 'zod';
import type { RoundAnswer, roundBody } from '@/contract/openings/round.ts';
import { placeRound, type RoundMeeting } from '@/core/openings/index.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, isRefusal } from '../deciding/index.ts';
import { timesSearch } from './find-times.ts';

/** People of all meetings of a round together. */
const MOST_PEOPLE = 60;

/**
 * Places several meetings together: whose calendar it is has to be at all of them, those who are named for all come to each, and each has
 * people of its own. From what the asker sees and nothing else.
 */
export function findRound(ctx: Context, key: string, body: z.infer<typeof roundBody>): Result<RoundAnswer> {
  const { meetings, ...rest } = body;
  // Somebody who must be at one of them and may be at another is read once.
  const everyone = new Map(rest.people.map((one) => [one.address, one]));
  for (const meeting of meetings)
    for (const one of meeting.people) if (!everyone.has(one.address)) everyone.set(one.address, one);
  const people = [...everyone.values()];
  if (people.length > MOST_PEOPLE) return refuse('badInput', { fields: { people: `tooManyPeople:${MOST_PEOPLE}` } });
  const search = timesSearch(ctx, key, { ...rest, people, length: 5, room: null, sheet: false, there: false });
  if (isRefusal(search)) return search;
  const { request, journeys, unknown, nameOf, text } = search;
  const owner = search.people[0]?.id ?? '';
  const round = meetings.map((meeting, i): RoundMeeting => {
    const theirs = new Map([...rest.people, ...meeting.people].map((one) => [one.address, one.must]));
    theirs.set(owner, true);
    const need = (must: boolean) => (must ? ('must' as const) : ('may' as const));
    return {
      id: String(i),
      length: meeting.length,
      people: [...theirs].map(([id, must]) => ({ id, need: need(must) })),
    };
  });
  const found = placeRound(request, round, search.people, journeys, owner);
  return ok({
    placed:
      found.placed?.map((one, i) => ({
        start: text(one.start),
        end: text(one.start + (meetings[i]?.length ?? 0)),
        reasons: one.reasons.map((r) => ({ ...r, who: nameOf(r.who) })),
      })) ?? null,
    without: found.without.map(Number),
    unknown: [...unknown],
    cut: found.cut || search.cut,
  });
}
