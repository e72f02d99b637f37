import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { fromWallLenient, toWall } from '../time/index.ts';
import { findOpenings, findSeriesOpenings, howManyCan, type OpeningsPerson, roomFor } from './index.ts';
import { slowOpenings } from './second-reading.ts';
import { min, personIn, text, world } from './worlds.ts';

const WEEK = 7 * 86_400_000;

describe('how many can come', () => {
  test('is, step by step, those for whom that step alone would be an opening, were they the only one and had no wishes', () => {
    fc.assert(
      fc.property(world, ({ request, people }) => {
        const { steps, can } = howManyCan(request, people);
        const plain = {
          ...request,
          now: 0,
          notice: 0,
          length: request.grid,
          padBefore: 0,
          padAfter: 0,
          place: null,
          at: [],
        };
        const counts = new Map<number, number>();
        for (const one of people.filter((p) => p.known))
          for (const start of slowOpenings(plain, [{ ...one, need: 'must', keeps: [] }], []))
            counts.set(start, (counts.get(start) ?? 0) + 1);
        expect(steps.map((step, i) => [text(step), can[i]])).toEqual(
          steps.map((step) => [text(step), counts.get(step) ?? 0]),
        );
      }),
      { numRuns: 60 },
    );
  });
});

describe('any room that would do', () => {
  test('is the first that could be asked as one who has to be there, and where there is none the time is no opening', () => {
    fc.assert(
      fc.property(
        world.chain((w) =>
          fc.record({ w: fc.constant(w), rooms: fc.tuple(personIn(w.week, 'r1'), personIn(w.week, 'r2')) }),
        ),
        ({ w, rooms }) => {
          const { request, people, journeys } = w;
          const { starts } = findOpenings(request, people, journeys);
          const found = roomFor(request, starts, rooms, journeys);
          const fits = rooms.map((room) => {
            const all: OpeningsPerson[] = [...people, { ...room, need: 'must' }];
            return new Set(findOpenings(request, all, journeys).starts);
          });
          for (const start of starts)
            expect(found.get(start)).toBe(fits[0]?.has(start) ? 'r1' : fits[1]?.has(start) ? 'r2' : undefined);
        },
      ),
      { numRuns: 100 },
    );
  });
});

describe('a time for a series', () => {
  test('fits as often as its occurrences are openings, and what fails is said for those alone who can’t', () => {
    fc.assert(
      fc.property(world, fc.constantFrom(1, 2), ({ request: r, people, journeys, week }, every) => {
        const times = 3;
        // Busy in some of the weeks: what stands in the first two days stands two weeks later too.
        const request = { ...r, grid: 45, from: week, until: week + 7 * 1440 * (every * (times - 1) + 1) + 1440 };
        const list = people.map((p, i) => ({
          ...p,
          items: p.items.flatMap((item) =>
            item.allDay || i === 0
              ? [item]
              : [item, { ...item, start: text(min(item.start) + 14 * 1440), end: text(min(item.end) + 14 * 1440) }],
          ),
        }));
        const open = new Set(findOpenings(request, list, journeys).starts);
        const { starts } = findSeriesOpenings(request, list, journeys, every, times);
        const musts = list
          .filter((p) => p.need === 'must')
          .map((one) => {
            const alone = { ...request, at: request.at.filter((id) => id === one.id) };
            return { id: one.id, open: new Set(findOpenings(alone, [one], journeys).starts) };
          });
        for (const { start, fits, fails } of starts) {
          const wall = toWall(request.zone, start * 60_000);
          expect(wall).toBeLessThan(toWall(request.zone, request.from * 60_000) + WEEK);
          const all = [0, 1, 2].map((n) => fromWallLenient(request.zone, wall + n * every * WEEK) / 60_000);
          expect(fits).toBe(all.filter((at) => open.has(at)).length);
          expect(fails.map(({ at }) => at)).toEqual(all.filter((at) => !open.has(at)));
          for (const { at, who } of fails)
            expect(who).toEqual(musts.filter((must) => !must.open.has(at)).map(({ id }) => id));
        }
        const order = starts.map((s) => -s.fits * 1e9 + s.start);
        expect(order).toEqual([...order].sort((a, b) => a - b));
        // None of the first week that fits at all is left out; of an hour that comes twice there is only the first.
        const end = toWall(request.zone, week * 60_000) + WEEK;
        const first = [...open].filter((at) => {
          const wall = toWall(request.zone, at * 60_000);
          return wall < end && fromWallLenient(request.zone, wall) === at * 60_000;
        });
        const found = new Set(starts.map((s) => s.start));
        expect(first.filter((at) => !found.has(at))).toEqual([]);
      }),
      { numRuns: 15 },
    );
  });
});
