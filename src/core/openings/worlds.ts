import fc from 'fast-check';
import { instantText, parseInstant } from '../time/index.ts';
import type { Movable, OpeningsPerson, OpeningsRequest, TimePreference } from './index.ts';

/* Worlds to search in, for the tests: people, their weeks and wishes, at clock changes and in several zones. */

const MINUTE = 60_000;
export const min = (text: string) => (parseInstant(text) ?? Number.NaN) / MINUTE;
export const text = (minute: number) => instantText(minute * MINUTE);
/** Weeks in which clocks change, in three zones. */
export const WEEKS = [
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
const preference: fc.Arbitrary<TimePreference> = fc
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
  .map((k) => ('clocks' in k ? { ...k, from: k.clocks[0], to: k.clocks[1] } : k) as TimePreference);
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
export const itemIn = (week: number) =>
  fc
    .record({
      at: fc.integer({ min: -600, max: 3 * 1440 }),
      length: fc.integer({ min: 0, max: 300 }),
      allDay: fc.boolean(),
      shows: fc.constantFrom(
        'free' as const,
        'reachable' as const,
        'tentative' as const,
        'busy' as const,
        'busy' as const,
        'away' as const,
      ),
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
export const personIn = (week: number, id: string) =>
  fc.record({
    id: fc.constant(id),
    need: fc.constantFrom('must' as const, 'must' as const, 'may' as const),
    known: fc.constantFrom(true, true, true, false),
    zone,
    hours,
    keeps: fc.array(preference, { maxLength: 2 }),
    items: fc.array(itemIn(week), { maxLength: 6 }),
  }) as fc.Arbitrary<OpeningsPerson>;
export const requestIn = (week: number): fc.Arbitrary<OpeningsRequest> =>
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
export const journeys = fc.constantFrom(
  [],
  [
    ['Marsh Lab', 'Ridge House', 35],
    ['ridge house', 'SEED STORE', 20],
    ['Seed Store', 'Ridge House', 25],
  ],
) as fc.Arbitrary<[string, string, number][]>;
export const world = fc.constantFrom(...WEEKS).chain((week) =>
  fc.record({
    request: requestIn(week),
    people: fc.tuple(personIn(week, 'a'), personIn(week, 'b'), personIn(week, 'c')),
    journeys,
    week: fc.constant(week),
  }),
);
export const movableIn = (week: number): fc.Arbitrary<Movable[]> =>
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
