import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { parseWall, toWall, wallText } from '../time/index.ts';
import { expand, type Rule, readRule, type Series } from './index.ts';

const wall = (text: string): number => parseWall(text) as number;
const rule = (text: string, start = '2027-01-04T09:00', zone = 'Europe/Lisbon'): Rule => {
  const read = readRule(text, wall(start), zone);
  if (read.kind !== 'rule') throw new Error(read.code);
  return read;
};
const series = (more: Partial<Series>): Series => ({
  startWall: wall('2027-01-04T09:00'),
  length: { days: 0, ms: 3_600_000 },
  allDay: false,
  zone: 'Europe/Lisbon',
  rule: null,
  added: [],
  left: [],
  ...more,
});
const starts = (s: Series, from: string, to: string): string[] =>
  expand(s, Date.parse(`${from}Z`), Date.parse(`${to}Z`), 1000).occurrences.map((o) =>
    wallText(toWall(s.zone, o.start)),
  );

describe('a rule is refused', () => {
  test.each([
    ['FREQ=SECONDLY', 'ruleTooOften'],
    ['FREQ=MINUTELY', 'ruleTooOften'],
    ['FREQ=MINUTELY;INTERVAL=30', 'ruleTooOften'],
    ['FREQ=HOURLY;BYMINUTE=0,30', 'ruleTooOften'],
    ['FREQ=DAILY;BYHOUR=0,6,12,18;BYMINUTE=0,5,10,15,20,25,30', 'ruleTooOften'],
    ['FREQ=WEEKLY;X-LUCKY=7', 'rulePart'],
    ['RSCALE=CHINESE;FREQ=YEARLY', 'rulePart'],
    ['FREQ=MONTHLY;SKIP=FORWARD', 'rulePart'],
    ['FREQ=WEEKLY;BYDAY=MO;BYDAY=TU', 'ruleUnreadable'],
    ['FREQ=WEEKLY;COUNT=0', 'ruleUnreadable'],
    ['FREQ=WEEKLY;BYMONTHDAY=3', 'ruleUnreadable'],
    ['FREQ=MONTHLY;BYWEEKNO=3', 'ruleUnreadable'],
    ['FREQ=DAILY;BYMONTHDAY=31;BYMONTH=2,4,6,9,11;BYHOUR=1,2,3', 'ruleNeverHappens'],
    ['FREQ=WEEKLY;INTERVAL=0', 'ruleInterval'],
    ['FREQ=WEEKLY;INTERVAL=-1', 'ruleInterval'],
    ['FREQ=DAILY;COUNT=100000', 'ruleTooMany'],
    ['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', 'ruleNeverHappens'],
    ['FREQ=WEEKLY;UNTIL=20200101T000000Z', 'ruleNeverHappens'],
    ['FREQ=FORTNIGHTLY', 'ruleUnreadable'],
    ['FREQ=WEEKLY;FREQ=DAILY', 'ruleUnreadable'],
    ['FREQ=WEEKLY;BYDAY=<script>', 'ruleUnreadable'],
    ['FREQ=WEEKLY;COUNT=3;UNTIL=20280101', 'ruleUnreadable'],
    ['nonsense', 'ruleUnreadable'],
    ['', 'ruleUnreadable'],
  ])('%s: %s', (text, code) => {
    expect(readRule(text, wall('2027-01-04T09:00'), 'Europe/Lisbon')).toEqual({ kind: 'problem', code });
  });
  test('whatever text comes, reading it ends and answers', () => {
    const part = fc.constantFrom(
      'FREQ=DAILY',
      'FREQ=YEARLY',
      'INTERVAL=999',
      'BYDAY=-5MO',
      'BYMONTHDAY=31',
      'BYSETPOS=-1',
      'BYWEEKNO=53',
      'BYYEARDAY=366',
      'COUNT=2',
      'WKST=SU',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(part).map((p) => p.join(';')),
        ),
        (text) => {
          expect(['rule', 'problem']).toContain(readRule(text, wall('2027-01-04T09:00'), 'UTC').kind);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('expanding', () => {
  test('keeps the hour on the wall clock across a clock change', () => {
    expect(starts(series({ rule: rule('FREQ=WEEKLY') }), '2027-03-20T00:00:00', '2027-04-06T00:00:00')).toEqual([
      '2027-03-22T09:00:00',
      '2027-03-29T09:00:00',
      '2027-04-05T09:00:00',
    ]);
  });
  test('skips the one day on which its hour doesn’t exist, and doesn’t count it', () => {
    const night = series({
      startWall: wall('2027-03-26T01:30'),
      length: { days: 0, ms: 900_000 },
      rule: rule('FREQ=DAILY;COUNT=4', '2027-03-26T01:30'),
    });
    expect(starts(night, '2027-03-01T00:00:00', '2027-05-01T00:00:00').map((s) => s.slice(8, 10))).toEqual([
      '26',
      '27',
      '29',
      '30',
    ]);
  });
  test('leaves out what is left out and adds what is added', () => {
    const s = series({
      rule: rule('FREQ=WEEKLY;COUNT=3'),
      left: ['2027-01-11T09:00:00'],
      added: ['2027-01-13T15:00:00'],
    });
    expect(starts(s, '2027-01-01T00:00:00', '2027-03-01T00:00:00')).toEqual([
      '2027-01-04T09:00:00',
      '2027-01-13T15:00:00',
      '2027-01-18T09:00:00',
    ]);
  });
  test('an end given in UTC counts on the item’s own clock', () => {
    const s = series({
      zone: 'America/Bogota',
      rule: rule('FREQ=DAILY;UNTIL=20270106T140000Z', '2027-01-04T09:00', 'America/Bogota'),
    });
    expect(starts(s, '2027-01-01T00:00:00', '2027-02-01T00:00:00')).toHaveLength(3);
  });
  test('a budget ends the list and says so', () => {
    const cut = expand(series({ rule: rule('FREQ=DAILY') }), Date.UTC(2027, 0), Date.UTC(2037, 0), 10);
    expect(cut.occurrences).toHaveLength(10);
    expect(cut.cut).toBe(true);
  });
  test('what a range gives is what a longer one gives, cut', () => {
    const s = series({ rule: rule('FREQ=MONTHLY;BYDAY=2TU,-1FR') });
    const whole = starts(s, '2027-01-01T00:00:00', '2031-01-01T00:00:00');
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 700 }), fc.integer({ min: 1, max: 300 }), (from, length) => {
        const a = new Date(Date.UTC(2027, 0, 1 + from)).toISOString().slice(0, 19);
        const b = new Date(Date.UTC(2027, 0, 1 + from + length)).toISOString().slice(0, 19);
        expect(starts(s, a, b)).toEqual(whole.filter((t) => t >= a && t < b));
      }),
      { numRuns: 40 },
    );
  });
  test('all-day items are dates, whatever the zone', () => {
    const s = series({
      allDay: true,
      startWall: Date.UTC(2027, 2, 27),
      length: { days: 1, ms: 0 },
      rule: rule('FREQ=DAILY;COUNT=3', '2027-03-27T00:00'),
    });
    const found = expand(s, Date.UTC(2027, 2, 1), Date.UTC(2027, 4, 1), 10).occurrences;
    expect(found.map((o) => new Date(o.start).toISOString())).toEqual([
      '2027-03-27T00:00:00.000Z',
      '2027-03-28T00:00:00.000Z',
      '2027-03-29T00:00:00.000Z',
    ]);
  });
});
