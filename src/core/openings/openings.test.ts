import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { findOpenings, type Movable, makeRoom, type OpeningsPerson, type OpeningsRequest } from './index.ts';
import { slowOpenings } from './second-reading.ts';
import { itemIn, journeys, movableIn, personIn, requestIn, text, WEEKS, world } from './worlds.ts';

describe('openings', () => {
  test('are those that the rule read slowly, minute by minute, finds, through clock changes, zones, keeps and journeys', () => {
    fc.assert(
      fc.property(
        world.chain((w) => fc.record({ w: fc.constant(w), movable: fc.option(movableIn(w.week), { nil: [] }) })),
        ({ w, movable }) => {
          const { request, people, journeys } = w;
          const fast = findOpenings(request, people, journeys, movable).starts.map(text);
          expect(fast).toEqual(slowOpenings(request, people, journeys, movable).map(text));
        },
      ),
      { numRuns: 100 },
    );
  });

  test('are there while somebody is away and reachable all the same, and not while they are away', () => {
    fc.assert(
      fc.property(world, (w) => {
        const showing = (shows: 'reachable' | 'free' | 'away') =>
          w.people.map((p) => ({ ...p, items: p.items.map((item) => ({ ...item, shows })) }));
        const starts = (people: readonly OpeningsPerson[]) => findOpenings(w.request, people, w.journeys).starts;
        expect(starts(showing('reachable'))).toEqual(starts(showing('free')));
        expect(starts(showing('away')).length).toBeLessThanOrEqual(starts(showing('reachable')).length);
      }),
      { numRuns: 50 },
    );
  });

  test('never grow by an item more or a person more, where neither a rest nor a place is asked for', () => {
    fc.assert(
      fc.property(
        world.chain((w) => fc.record({ w: fc.constant(w), more: itemIn(w.week), other: personIn(w.week, 'd') })),
        ({ w, more, other }) => {
          const request = { ...w.request, place: null, at: [] };
          const people = w.people.map((p) => ({ ...p, keeps: p.keeps.filter((k) => k.kind !== 'rest') }));
          const before = new Set(findOpenings(request, people).starts);
          const [first, ...rest] = people as unknown as [OpeningsPerson, ...OpeningsPerson[]];
          const fuller = [{ ...first, items: [...first.items, more] }, ...rest];
          const sparse = { ...other, keeps: other.keeps.filter((k) => k.kind !== 'rest') };
          for (const list of [fuller, [...people, sparse]])
            for (const start of findOpenings(request, list).starts) expect(before.has(start)).toBe(true);
        },
      ),
      { numRuns: 200 },
    );
  });

  test('are worked out from nothing of somebody who isn’t known but their hours', () => {
    fc.assert(
      fc.property(world, ({ request, people, journeys }) => {
        const [a, b, c] = people;
        const hidden = { ...c, known: false };
        const bare = { ...hidden, items: [], keeps: [] };
        expect(findOpenings(request, [a, b, hidden], journeys)).toEqual(findOpenings(request, [a, b, bare], journeys));
      }),
      { numRuns: 200 },
    );
  });

  test('are cut short after so many starts, and say so', () => {
    const request: OpeningsRequest = {
      now: WEEKS[2] as number,
      from: WEEKS[2] as number,
      until: (WEEKS[2] as number) + 60_000,
      length: 30,
      grid: 1,
      zone: 'UTC',
      notice: 0,
      tentative: 'blocks',
      within: 'any',
      padBefore: 0,
      padAfter: 0,
      place: null,
      at: [],
    };
    const found = findOpenings(request, []);
    expect([found.starts.length, found.cut]).toEqual([50_000, true]);
  });
});

describe('making room', () => {
  /** The best plan by trying every set and every place. */
  function slowRoom(
    w: { request: OpeningsRequest; people: readonly OpeningsPerson[]; journeys: [string, string, number][] },
    movable: readonly Movable[],
    most: number,
  ) {
    const { request, people, journeys } = w;
    let best: { cost: number; moves: number; start: number } | null = null;
    const ids = new Set(people.map((p) => p.id));
    const grid = (from: number, until: number, length: number) =>
      slowOpenings(
        {
          ...request,
          from,
          until,
          length,
          now: from,
          notice: 0,
          within: 'any',
          place: null,
          padBefore: 0,
          padAfter: 0,
          at: [],
        },
        [],
        [],
      );
    const sets: number[][] = [[]];
    for (const [i] of movable.entries()) for (const set of [...sets]) if (set.length < most) sets.push([...set, i]);
    for (const set of sets) {
      const cost = set.reduce((sum, i) => sum + (movable[i] as Movable).cost, 0);
      if (best && (cost > best.cost || (cost === best.cost && set.length > best.moves))) continue;
      const places = set.map((i) => {
        const m = movable[i] as Movable;
        const theirs = people.filter((p) => m.people.includes(p.id));
        const alone = theirs.map((p) => ({ ...p, need: 'must' as const, keeps: [] }));
        return grid(m.from, m.until, m.length).filter(
          (s) =>
            s !== m.start &&
            slowOpenings(
              {
                ...request,
                from: s,
                until: s + m.length,
                length: m.length,
                now: s,
                notice: 0,
                place: null,
                padBefore: 0,
                padAfter: 0,
                at: [],
              },
              alone,
              [],
            ).length === 1,
        );
      });
      const combos = places.reduce<number[][]>((all, list) => all.flatMap((c) => list.map((s) => [...c, s])), [[]]);
      const begins = combos.flatMap((combo) => {
        const put = movable.map((m, i) => ({
          ...m,
          start: set.includes(i) ? (combo[set.indexOf(i)] as number) : m.start,
        }));
        const clash = set.some((i) =>
          put.some((other, j) => {
            const m = put[i] as Movable;
            return (
              j !== i &&
              m.people.some((p) => ids.has(p) && other.people.includes(p)) &&
              m.start < other.start + other.length &&
              m.start + m.length > other.start
            );
          }),
        );
        if (clash) return [];
        const first = slowOpenings(request, people, journeys, put).find((s) =>
          set.every((i) => {
            const m = put[i] as Movable;
            return !m.people.some((p) => ids.has(p)) || m.start >= s + request.length || m.start + m.length <= s;
          }),
        );
        return first ?? [];
      });
      const start = Math.min(...begins);
      const better = !best || cost < best.cost || set.length < best.moves || start < best.start;
      if (begins.length > 0 && better) best = { cost, moves: set.length, start };
    }
    return best;
  }

  test('finds the cheapest plan that trying everything finds, or that there is none', () => {
    const small = fc.constantFrom(...WEEKS).chain((week) =>
      fc.record({
        request: requestIn(week).map((r) => ({
          ...r,
          from: week + 540,
          until: week + 540 + 240,
          now: week,
          notice: 0,
          grid: 60,
          length: 60,
        })),
        people: fc.tuple(personIn(week, 'a'), personIn(week, 'b')),
        journeys,
        movable: movableIn(week).map((list) => list.slice(0, 3).map((m) => ({ ...m, until: m.from + 420 }))),
      }),
    );
    fc.assert(
      fc.property(small, ({ movable, ...w }) => {
        const { room, cut } = makeRoom(w.request, w.people, w.journeys, movable, 2);
        expect(cut).toBe(false);
        expect(room && { cost: room.cost, moves: room.moves.length, start: room.start }).toEqual(
          slowRoom(w, movable, 2),
        );
      }),
      { numRuns: 40 },
    );
  });
});
