import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { findOpenings, type OpeningsPerson, placeRound, type RoundMeeting } from './index.ts';
import { costsOf } from './rank.ts';
import { text, world } from './worlds.ts';

/** Every way there is, one by one: the least sum, `null` where there is none. */
function slowly(
  request: Parameters<typeof placeRound>[0],
  meetings: readonly RoundMeeting[],
  people: readonly OpeningsPerson[],
  journeys: Parameters<typeof findOpenings>[2],
): number | null {
  const searches = meetings.map((meeting) => {
    const theirs = people.flatMap((p) => {
      const attendee = meeting.people.find((one) => one.id === p.id);
      return attendee ? [{ ...p, need: attendee.need }] : [];
    });
    const own = { ...request, length: meeting.length };
    const { starts } = findOpenings(own, theirs, journeys);
    return { meeting, theirs, own, list: costsOf(own, theirs, starts, 'a') };
  });
  let least: number | null = null;
  const ways = (n: number, so: number[], cost: number): void => {
    const search = searches[n];
    if (search) {
      for (const { start, cost: more } of search.list) ways(n + 1, [...so, start], cost + more);
      return;
    }
    if (least !== null && cost >= least) return;
    const ok = searches.every(({ meeting, theirs, own }, i) => {
      const start = so[i] as number;
      const others = searches.flatMap((other, j) => (i === j ? [] : [{ ...other.meeting, start: so[j] as number }]));
      const shared = others.filter((o) => o.people.some((p) => meeting.people.some((q) => q.id === p.id)));
      if (shared.some((o) => start < o.start + o.length && o.start < start + meeting.length)) return false;
      // As busy time, without a place, of whoever is in the others too.
      const busy = theirs.map((p) => ({
        ...p,
        items: [
          ...p.items,
          ...others
            .filter((o) => o.people.some((q) => q.id === p.id))
            .map((o) => ({
              start: text(o.start),
              end: text(o.start + o.length),
              allDay: false,
              shows: 'busy' as const,
            })),
        ],
      }));
      return findOpenings(own, busy, journeys).starts.includes(start);
    });
    if (ok) least = cost;
  };
  ways(0, [], 0);
  return least;
}

const meetings = fc
  .array(
    fc.record({
      length: fc.constantFrom(30, 60, 90),
      people: fc.subarray(['a', 'b', 'c'], { minLength: 1 }),
      may: fc.subarray(['b', 'c']),
    }),
    { minLength: 2, maxLength: 3 },
  )
  .map((list) =>
    list.map(({ length, people, may }, i): RoundMeeting => {
      const need = (id: string) => (may.includes(id) ? ('may' as const) : ('must' as const));
      return { id: `m${i}`, length, people: people.map((id) => ({ id, need: need(id) })) };
    }),
  );

describe('a round', () => {
  test('costs as little as the best of all ways, tried one by one, with zones, keeps, padding and journeys', () => {
    fc.assert(
      fc.property(world, meetings, ({ request: r, people, journeys }, round) => {
        const request = { ...r, grid: 60, until: Math.min(r.until, r.from + 700) };
        const { placed, cut } = placeRound(request, round, people, journeys, 'a');
        expect(cut).toBe(false);
        const sum = placed?.reduce((all, one) => all + one.cost, 0) ?? null;
        const slow = slowly(request, round, people, journeys);
        if (slow === null) expect(sum).toBeNull();
        else expect(sum).toBeCloseTo(slow, 6);
        // Those that are alike stand in the order they were asked for, and none lies over another of somebody's.
        const like = (m: RoundMeeting) =>
          JSON.stringify([m.length, [...m.people].map((p) => `${p.id} ${p.need}`).sort()]);
        for (const [i, one] of placed?.entries() ?? [])
          for (const [j, other] of placed?.entries() ?? [])
            if (i < j && like(round[i] as RoundMeeting) === like(round[j] as RoundMeeting))
              expect(one.start).toBeLessThan(other.start);
        expect(placed?.map((one) => one.id) ?? round.map((m) => m.id)).toEqual(round.map((m) => m.id));
      }),
      { numRuns: 60 },
    );
  });

  test('says which of its meetings have no time at all', () => {
    fc.assert(
      fc.property(world, meetings, ({ request, people, journeys }, round) => {
        const { placed, without } = placeRound(request, round, people, journeys, 'a');
        const none = round.filter((meeting) => {
          const theirs = people.flatMap((p) => {
            const attendee = meeting.people.find((one) => one.id === p.id);
            return attendee ? [{ ...p, need: attendee.need }] : [];
          });
          return findOpenings({ ...request, length: meeting.length }, theirs, journeys).starts.length === 0;
        });
        expect(without).toEqual(none.map((m) => m.id));
        if (none.length > 0) expect(placed).toBeNull();
      }),
      { numRuns: 60 },
    );
  });
});
