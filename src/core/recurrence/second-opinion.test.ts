import fc from 'fast-check';
import { RRuleTemporal } from 'rrule-temporal';
import { describe, expect, test } from 'vitest';
import { parseWall, wallText } from '../time/index.ts';
import { type Rule, readRule, wallStarts } from './rule.ts';

/* The walk held against a package that nobody here wrote, where that is right: it runs in UTC, so that no zone's changes matter. */

const wall = (text: string): number => parseWall(text) as number;
const compact = (ms: number): string => `${wallText(ms).replace(/[-:]/g, '')}Z`;
const YEAR = 366 * 86_400_000;

const some = <T>(values: readonly T[], most: number) =>
  fc.uniqueArray(fc.constantFrom(...values), { minLength: 1, maxLength: most });
const numbers = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i);
const signed = (most: number) => [...numbers(-most, -1), ...numbers(1, most)];
const days = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
const part = (name: string, values: fc.Arbitrary<readonly unknown[]>) =>
  fc.option(
    values.map((v) => `${name}=${v.join(',')}`),
    { nil: null, freq: 1 },
  );

const common = {
  interval: fc.option(
    fc.integer({ min: 1, max: 4 }).map((n) => `INTERVAL=${n}`),
    { nil: null },
  ),
  month: part('BYMONTH', some(numbers(1, 12), 3)),
  hour: part('BYHOUR', some(numbers(0, 23), 2)),
  minute: part('BYMINUTE', some([0, 15, 30], 2)),
};
const daily = fc.record({
  freq: fc.constant('FREQ=DAILY'),
  ...common,
  monthday: part('BYMONTHDAY', some(signed(31), 4)),
  day: part('BYDAY', some(days, 4)),
});
const weekly = fc.record({
  freq: fc.constant('FREQ=WEEKLY'),
  ...common,
  day: part('BYDAY', some(days, 4)),
  start: fc.constantFrom(null, 'WKST=SU', 'WKST=MO'),
});
const nth = fc.tuple(fc.constantFrom(-2, -1, 1, 2, 3, 4), fc.constantFrom(...days)).map(([n, d]) => `${n}${d}`);
const monthly = fc.record({
  freq: fc.constant('FREQ=MONTHLY'),
  ...common,
  day: fc.oneof(
    part('BYMONTHDAY', some(signed(31), 4)),
    part('BYDAY', some(days, 3)),
    part('BYDAY', fc.uniqueArray(nth, { minLength: 1, maxLength: 2 })),
  ),
});
const yearly = fc.record({
  freq: fc.constant('FREQ=YEARLY'),
  ...common,
  day: fc.oneof(part('BYMONTHDAY', some(signed(28), 4)), part('BYDAY', some(days, 3))),
});
const rules = fc.oneof(daily, weekly, monthly, yearly).map((parts) => Object.values(parts).filter(Boolean).join(';'));
const counted = fc.tuple(rules, fc.constantFrom('', ';COUNT=9', ';UNTIL=20290101T000000Z')).map(([r, end]) => r + end);
const starts = fc
  .integer({ min: Date.UTC(2024, 0), max: Date.UTC(2026, 0) })
  .map((ms) => Math.floor(ms / 900_000) * 900_000);

/** What the package gives after the start, in a range. */
function theirs(rule: string, start: number, from: number, to: number): number[] {
  const r = new RRuleTemporal({ rruleString: `DTSTART:${compact(start)}\nRRULE:${rule}`, maxIterations: 50_000 });
  return r
    .between(new Date(from), new Date(to - 1), true)
    .map((z) => z.epochMilliseconds)
    .filter((ms) => ms > start);
}

describe('the walk agrees with a second implementation', () => {
  test('over random rules by the day, week, month and year', () => {
    let compared = 0;
    fc.assert(
      fc.property(counted, starts, (text, start) => {
        const rule = readRule(text, start, 'UTC');
        if (rule.kind === 'problem') return;
        // Where the rule doesn't give its own start, what COUNT counts is nobody's agreement.
        const synchronised = wallStarts(
          { kind: 'rule', text: rule.text.replace(/;COUNT=\d+/, '') } as Rule,
          start - 4 * YEAR,
          start,
          start + 1000,
          3,
          null,
        );
        if (text.includes('COUNT') && !synchronised.walls.includes(start)) return;
        const to = start + 3 * YEAR;
        const mine = wallStarts(rule, start, start, to, 300, null).walls;
        expect(mine).toEqual(theirs(text, start, start, to).slice(0, 300));
        compared++;
      }),
      { numRuns: 1500 },
    );
    expect(compared).toBeGreaterThan(500);
  });
  test('a range far from the start is what the whole walk gives there', () => {
    fc.assert(
      fc.property(counted, starts, fc.integer({ min: 0, max: 900 }), (text, start, after) => {
        const rule = readRule(text, start, 'UTC');
        if (rule.kind === 'problem') return;
        const from = start + after * 86_400_000;
        const whole = wallStarts(rule, start, start, start + 4 * YEAR, 40_000, null).walls;
        const range = wallStarts(rule, start, from, from + YEAR, 40_000, null).walls;
        expect(range).toEqual(whole.filter((ms) => ms >= from && ms < from + YEAR));
      }),
      { numRuns: 1000 },
    );
  });
});

describe('where the package was wrong', () => {
  const read = (text: string, start: string): Rule => {
    const rule = readRule(text, wall(start), 'UTC');
    if (rule.kind === 'problem') throw new Error(rule.code);
    return rule;
  };
  const from = (text: string, start: string, to: string, budget = 50): string[] =>
    wallStarts(read(text, start), wall(start), wall(start), wall(to), budget, null).walls.map((w) =>
      wallText(w).slice(0, 10),
    );
  test('days of the year are held against weekdays too', () => {
    const all = from(
      'FREQ=YEARLY;BYDAY=FR;BYYEARDAY=-275,-276,-277,-278,-279,-280,-281',
      '2023-01-01T09:00',
      '2027-01-01T00:00',
    );
    expect(all).toHaveLength(4);
    for (const date of all) expect(new Date(date).getUTCDay()).toBe(5);
  });
  test('a week of the year without a weekday keeps the start’s', () => {
    expect(from('FREQ=YEARLY;BYWEEKNO=1', '2024-12-30T09:00', '2029-02-01T00:00')).toEqual([
      '2025-12-29',
      '2027-01-04',
      '2028-01-03',
      '2029-01-01',
    ]);
  });
  test('week 53 comes only in years that have one', () => {
    expect(from('FREQ=YEARLY;BYWEEKNO=53;BYDAY=FR', '2021-01-01T09:00', '2034-01-01T00:00')).toEqual([
      '2027-01-01',
      '2032-12-31',
    ]);
    expect(from('FREQ=YEARLY;BYWEEKNO=-1;BYDAY=FR', '2025-12-26T09:00', '2028-02-01T00:00')).toEqual([
      '2027-01-01',
      '2027-12-31',
    ]);
  });
  test('a daily series begun in 1940 is there a lifetime later, without walking through it', () => {
    const rule = read('FREQ=DAILY;INTERVAL=3', '1940-05-01T09:00');
    const found = wallStarts(
      rule,
      wall('1940-05-01T09:00'),
      wall('2027-01-01T00:00'),
      wall('2027-01-08T00:00'),
      10,
      null,
    ).walls;
    expect(found.length).toBeGreaterThan(1);
    for (const ms of found) expect((ms - wall('1940-05-01T09:00')) % (3 * 86_400_000)).toBe(0);
  });
  test('an hourly rule with hours of its own passes over the others', () => {
    expect(
      wallStarts(
        read('FREQ=HOURLY;INTERVAL=6;BYMONTH=2;BYMONTHDAY=29', '2024-02-29T06:00'),
        wall('2024-02-29T06:00'),
        wall('2027-01-01T00:00'),
        wall('2029-01-01T00:00'),
        10,
        null,
      ).walls.map(wallText),
    ).toEqual(['2028-02-29T00:00:00', '2028-02-29T06:00:00', '2028-02-29T12:00:00', '2028-02-29T18:00:00']);
  });
  test('a minutely rule with an end is a repeat', () => {
    expect(
      wallStarts(
        read('FREQ=MINUTELY;INTERVAL=20;COUNT=4', '2027-01-04T09:00'),
        wall('2027-01-04T09:00'),
        0,
        wall('2028-01-01T00:00'),
        10,
        null,
      ).walls.map(wallText),
    ).toEqual(['2027-01-04T09:20:00', '2027-01-04T09:40:00', '2027-01-04T10:00:00']);
  });
  test('hundreds of rules that never happen are looked at to their end', () => {
    const never = { kind: 'problem', code: 'ruleNeverHappens' };
    const start = wall('2027-01-04T09:00');
    const daily = 'FREQ=DAILY;BYMONTHDAY=31;BYMONTH=2,4,6,9,11;BYHOUR=1,2,3,4,5,6,7,8';
    for (let i = 0; i < 200; i++) {
      expect(readRule(daily, start, 'Europe/Lisbon')).toEqual(never);
      expect(readRule('FREQ=MINUTELY;BYMONTH=2;BYMONTHDAY=30', start, 'UTC')).toEqual(never);
    }
  });
});
