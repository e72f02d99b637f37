import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { instantText } from '../time/index.ts';
import { findOpenings, type Keep, type Movable, makeRoom, type OpeningsPerson, type OpeningsRequest } from './index.ts';
import { slowOpenings } from './second-reading.ts';

const MINUTE = 60_000;
const min = (text: string) => Date.parse(text) / MINUTE;
const text = (minute: number) => instantText(minute * MINUTE);
/** Weeks in which clocks change, in three zones. */
const WEEKS = [
  min('2027-03-27T00:00:00Z'),
  min('2027-10-30T00:00:00Z'),
  min('2027-03-01T00:00:00Z'),
  min('2027-03-13T00:00:00Z'),
];
const zone = fc.constantFrom('Europe/Lisbon', 'America/Bogota', 'America/New_York', 'Asia/Kathmandu', 'UTC');
const PLACES = ['Ridge House', 'marsh lab ', ' Seed Store', '', null];
const days = fc.subarray([1, 2, 3, 4, 5, 6, 7], { minLength: 1 });
const clocks = fc.constantFrom(
  ['00:00', '02:30'],
  ['01:15', '03:00'],
  ['09:00', '13:00'],
  ['12:00', '14:00'],
  ['18:00', '24:00'],
) as fc.Arbitrary<[string, string]>;
const keep: fc.Arbitrary<Keep> = fc
  .oneof(
    fc.record({ kind: fc.constant('span' as const), hard: fc.boolean(), days, clocks }),
    fc.record({
      kind: fc.constant('rest' as const),
      hard: fc.boolean(),
      days,
      clocks,
      minutes: fc.integer({ min: 5, max: 120 }),
    }),
    fc.record({ kind: fc.constant('most' as const), hard: fc.boolean(), minutes: fc.integer({ min: 30, max: 400 }) }),
    fc.record({
      kind: fc.constant('pause' as const),
      hard: fc.boolean(),
      after: fc.integer({ min: 60, max: 400 }),
      minutes: fc.integer({ min: 5, max: 60 }),
    }),
  )
  .map((k) => ('clocks' in k ? { ...k, from: k.clocks[0], to: k.clocks[1] } : k) as Keep);
const hours = fc.option(
  fc.array(
    fc.constantFrom(
      [],
      [['09:00', '18:00']],
      [
        ['08:30', '12:00'],
        ['13:00', '17:30'],
      ],
      [['00:00', '24:00']],
      [
        ['22:00', '24:00'],
        ['00:00', '06:00'],
      ],
    ),
    { minLength: 7, maxLength: 7 },
  ) as fc.Arbitrary<[string, string][][]>,
);
const itemIn = (week: number) =>
  fc
    .record({
      at: fc.integer({ min: -600, max: 3 * 1440 }),
      length: fc.integer({ min: 0, max: 300 }),
      allDay: fc.boolean(),
      shows: fc.constantFrom('free' as const, 'tentative' as const, 'busy' as const, 'busy' as const, 'away' as const),
      kind: fc.constantFrom(undefined, 'meeting', 'whereabouts', null),
      place: fc.constantFrom(...PLACES),
      byDate: fc.integer({ min: 0, max: 7 }),
    })
    .map(({ at, length, allDay, shows, kind, place, byDate }) => {
      const whole = allDay && byDate === 0;
      const day = text(week + Math.floor(at / 1440) * 1440).slice(0, 10);
      const after = text(week + Math.floor(at / 1440) * 1440 + 1440).slice(0, 10);
      return {
        start: whole ? day : text(week + at),
        end: whole ? after : text(week + at + length),
        allDay: whole,
        shows,
        kind,
        place,
      };
    });
const personIn = (week: number, id: string) =>
  fc.record({
    id: fc.constant(id),
    need: fc.constantFrom('must' as const, 'must' as const, 'may' as const),
    known: fc.constantFrom(true, true, true, false),
    zone,
    hours,
    keeps: fc.array(keep, { maxLength: 2 }),
    items: fc.array(itemIn(week), { maxLength: 6 }),
  }) as fc.Arbitrary<OpeningsPerson>;
const requestIn = (week: number): fc.Arbitrary<OpeningsRequest> =>
  fc.record({
    now: fc.integer({ min: week - 200, max: week + 400 }),
    from: fc.integer({ min: week, max: week + 700 }),
    until: fc.integer({ min: week + 900, max: week + 2880 }),
    length: fc.integer({ min: 1, max: 180 }),
    grid: fc.constantFrom(5, 15, 30, 45, 60, 7),
    zone,
    notice: fc.constantFrom(0, 30, 120),
    tentative: fc.constantFrom('blocks' as const, 'counts' as const),
    within: fc.constantFrom('hours' as const, 'any' as const),
    padBefore: fc.constantFrom(0, 0, 10, 25),
    padAfter: fc.constantFrom(0, 0, 10, 25),
    place: fc.constantFrom('Ridge House', 'ridge house ', null, null, ' '),
    at: fc.constantFrom([], [], ['a'], ['b', 'nobody']),
  });
const journeys = fc.constantFrom(
  [],
  [
    ['Marsh Lab', 'Ridge House', 35],
    ['ridge house', 'SEED STORE', 20],
    ['Seed Store', 'Ridge House', 25],
  ],
) as fc.Arbitrary<[string, string, number][]>;
const world = fc.constantFrom(...WEEKS).chain((week) =>
  fc.record({
    request: requestIn(week),
    people: fc.tuple(personIn(week, 'a'), personIn(week, 'b'), personIn(week, 'c')),
    journeys,
    week: fc.constant(week),
  }),
);
const movableIn = (week: number): fc.Arbitrary<Movable[]> =>
  fc
    .array(
      fc.record({
        people: fc.subarray(['a', 'b', 'c', 'd'], { minLength: 1 }),
        start: fc.integer({ min: 0, max: 60 }).map((n) => week + 480 + n * 15),
        length: fc.constantFrom(30, 45, 60),
        cost: fc.constantFrom(1, 2, 4, 10),
        from: fc.constantFrom(week + 300, week + 540),
        until: fc.constantFrom(week + 1200, week + 1600),
      }),
      { maxLength: 4 },
    )
    .map((list) => list.map((m, i) => ({ id: `m${i}`, ...m })));

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
  }, 30_000);

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
    const asked = new Set(people.map((p) => p.id));
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
              m.people.some((p) => asked.has(p) && other.people.includes(p)) &&
              m.start < other.start + other.length &&
              m.start + m.length > other.start
            );
          }),
        );
        if (clash) return [];
        const first = slowOpenings(request, people, journeys, put).find((s) =>
          set.every((i) => {
            const m = put[i] as Movable;
            return !m.people.some((p) => asked.has(p)) || m.start >= s + request.length || m.start + m.length <= s;
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
  }, 30_000);
});
