import fc from 'fast-check';
import { expect, test } from 'vitest';
import { expand, readRule, ruleBefore, ruleFrom, shiftedRule } from './index.ts';

const DAY = 86_400_000;
const HOUR = 3_600_000;
/** Wednesday, 3 March 2027, ten in the morning. */
const START = Date.UTC(2027, 2, 3, 10);
const ruleOf = (text: string, start = START) => {
  const rule = readRule(text, start, 'UTC');
  if (rule.kind !== 'rule') throw new Error(rule.code);
  return rule;
};
const starts = (text: string, start: number, until: number) =>
  expand(
    {
      startWall: start,
      length: { days: 0, ms: HOUR },
      allDay: false,
      zone: 'UTC',
      rule: ruleOf(text, start),
      added: [],
      left: [],
    },
    start,
    until,
    500,
  ).occurrences.map((o) => o.start);

test('the days of a rule move with its start, and every occurrence by the same', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(
        'FREQ=WEEKLY',
        'FREQ=WEEKLY;BYDAY=WE',
        'FREQ=WEEKLY;INTERVAL=2;BYDAY=WE',
        'FREQ=DAILY;INTERVAL=3',
        'FREQ=WEEKLY;COUNT=7',
        'FREQ=WEEKLY;UNTIL=20270601T100000',
      ),
      fc.integer({ min: -2, max: 2 }),
      fc.integer({ min: -9, max: 9 }),
      (text, days, hours) => {
        const shift = days * DAY + hours * HOUR;
        const moved = shiftedRule(ruleOf(text), START, shift);
        expect(moved).not.toBeNull();
        const until = START + 90 * DAY;
        const was = starts(text, START, until).map((at) => at + shift);
        const is = starts(moved ?? '', START + shift, until + shift);
        expect(is).toEqual(was);
      },
    ),
    { numRuns: 150 },
  );
});

test.each([
  ['FREQ=MONTHLY;BYMONTHDAY=3', 2, 'FREQ=MONTHLY;BYMONTHDAY=5'],
  ['FREQ=MONTHLY;BYDAY=1WE', 1, 'FREQ=MONTHLY;BYDAY=1TH'],
  ['FREQ=MONTHLY;BYDAY=1WE', 7, 'FREQ=MONTHLY;BYDAY=2WE'],
  ['FREQ=MONTHLY;BYDAY=-5WE', 28, 'FREQ=MONTHLY;BYDAY=-1WE'],
])('%s, moved by %i days, is %s', (text, days, moved) => {
  expect(shiftedRule({ kind: 'rule', text }, START, days * DAY)).toBe(ruleOf(moved, START + days * DAY).text);
});

test.each([
  ['FREQ=MONTHLY;BYMONTHDAY=3,20', 1],
  ['FREQ=MONTHLY;BYDAY=WE,TH;BYSETPOS=1', 1],
  ['FREQ=YEARLY;BYWEEKNO=9;BYDAY=WE', 1],
])('%s names days that don’t simply move along', (text, days) => {
  expect(shiftedRule(ruleOf(text), START, days * DAY)).toBeNull();
});

test('cut in two, a series has the same occurrences as before', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(
        'FREQ=WEEKLY;BYDAY=WE',
        'FREQ=DAILY;COUNT=20',
        'FREQ=WEEKLY;BYDAY=MO,WE;COUNT=9',
        'FREQ=WEEKLY;UNTIL=20270501T100000',
      ),
      fc.nat(30),
      (text, n) => {
        const until = START + 120 * DAY;
        const all = starts(text, START, until);
        const cut = all[1 + (n % (all.length - 1))] as number;
        const rule = ruleOf(text);
        const head = starts(ruleBefore(rule, cut), START, until);
        const tail = starts(ruleFrom(rule, START, cut), cut, until);
        expect([...head, ...tail]).toEqual(all);
      },
    ),
    { numRuns: 100 },
  );
});
