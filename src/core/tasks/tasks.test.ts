import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readRule } from '../recurrence/index.ts';
import { fromWall, parseDate, parseWall, toWall } from '../time/index.ts';
import { type Due, dueDay, dueEnds, dueLater, nextDue, tiedDue } from './index.ts';

const DAY = 86_400_000;
const date = (text: string): Due => ({ date: parseDate(text) as number });
const at = (text: string, zone = 'Europe/Lisbon'): Due => ({
  instant: fromWall(zone, parseWall(text) as number) as number,
});
const rule = (text: string, due: Due, zone = 'Europe/Lisbon') => {
  const start = 'date' in due ? due.date : toWall(zone, due.instant);
  const read = readRule(text, start, 'date' in due ? null : zone);
  if (read.kind !== 'rule') throw new Error(read.code);
  return read;
};

describe('when something is due', () => {
  test('a day lasts to the minute before the midnight that ends it, on its own clock', () => {
    expect(dueEnds(date('2027-03-02'), 'Europe/Lisbon')).toBe(Date.UTC(2027, 2, 2, 23, 59));
    expect(dueEnds(date('2027-03-02'), 'America/New_York')).toBe(Date.UTC(2027, 2, 3, 4, 59));
    // On the day on which the clocks go forward it is an hour shorter.
    expect(dueEnds(date('2027-03-28'), 'Europe/Lisbon')).toBe(Date.UTC(2027, 2, 28, 22, 59));
    expect(dueEnds({ instant: 5 }, 'UTC')).toBe(5);
  });

  test('a day later is the same hour of the clock, also where the clocks change', () => {
    expect(dueLater(at('2027-03-27T09:00'), 1, 'Europe/Lisbon')).toEqual(at('2027-03-28T09:00'));
    expect(dueLater(date('2027-12-31'), 1, 'UTC')).toEqual(date('2028-01-01'));
  });

  test('what repeats is due next after it was, on its own clock, as often as it was said', () => {
    const due = at('2027-03-22T09:00');
    expect(nextDue(due, rule('FREQ=WEEKLY', due), 'Europe/Lisbon')?.due).toEqual(at('2027-03-29T09:00'));
    let [now, text] = [date('2027-01-31'), 'FREQ=MONTHLY;BYMONTHDAY=-1;COUNT=3'];
    const met: string[] = [];
    for (;;) {
      const next = nextDue(now, rule(text, now), 'UTC');
      if (!next) break;
      [now, text] = [next.due, next.rule];
      met.push(new Date((now as { date: number }).date).toISOString().slice(0, 10));
    }
    expect(met).toEqual(['2027-02-28', '2027-03-31']);
  });

  test('what is done one after the other meets every day the rule gives, and no other', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2000 }),
        fc.constantFrom('DAILY', 'WEEKLY', 'MONTHLY'),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 6 }),
        (start, freq, interval, count) => {
          const first = Date.UTC(2027, 0, 1) + start * DAY;
          const text = `FREQ=${freq};INTERVAL=${interval};COUNT=${count}`;
          let met = 1;
          let now: Due = { date: first };
          let left = text;
          for (let i = 0; i < 10; i++) {
            const next = nextDue(now, rule(left, now), 'UTC');
            if (!next) break;
            expect((next.due as { date: number }).date).toBeGreaterThan((now as { date: number }).date);
            [now, left] = [next.due, next.rule];
            met++;
          }
          expect(met).toBe(count);
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('what belongs to an item', () => {
  const item = (start: string, end: string) => ({
    start: fromWall('Europe/Lisbon', parseWall(start) as number) as number,
    end: fromWall('Europe/Lisbon', parseWall(end) as number) as number,
    allDay: false,
  });
  test('is due so many days before its day, on its day, or after the day it ends', () => {
    const one = item('2027-03-05T10:00', '2027-03-05T11:00');
    expect(tiedDue(one, 'prepare', 2, 'Europe/Lisbon')).toEqual(date('2027-03-03'));
    expect(tiedDue(one, 'bring', 0, 'Europe/Lisbon')).toEqual(date('2027-03-05'));
    expect(tiedDue(one, 'followUp', 1, 'Europe/Lisbon')).toEqual(date('2027-03-06'));
    // Over midnight it ends on the next day; at midnight it ended on its own.
    expect(tiedDue(item('2027-03-05T22:00', '2027-03-06T02:00'), 'followUp', 0, 'Europe/Lisbon')).toEqual(
      date('2027-03-06'),
    );
    expect(tiedDue(item('2027-03-05T22:00', '2027-03-06T00:00'), 'followUp', 0, 'Europe/Lisbon')).toEqual(
      date('2027-03-05'),
    );
  });
  test('counts the days of its owner’s clock', () => {
    const late = item('2027-03-05T23:00', '2027-03-05T23:30');
    expect(tiedDue(late, 'bring', 0, 'Asia/Tokyo')).toEqual(date('2027-03-06'));
    const days = { start: parseDate('2027-03-05') as number, end: parseDate('2027-03-07') as number, allDay: true };
    expect(tiedDue(days, 'followUp', 0, 'Asia/Tokyo')).toEqual(date('2027-03-06'));
    expect(dueDay(at('2027-03-05T23:30'), 'Asia/Tokyo')).toBe(parseDate('2027-03-06'));
  });
});
