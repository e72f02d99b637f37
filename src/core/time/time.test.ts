import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  dateText,
  fromWall,
  fromWallLenient,
  instantText,
  isZone,
  offsetAt,
  parseDate,
  parseInstant,
  parseWall,
  toWall,
  wallText,
  weekStart,
} from './index.ts';

const instants = fc.integer({ min: Date.UTC(1950, 0), max: Date.UTC(2090, 0) });
const zones = fc.constantFrom(
  'Europe/Lisbon',
  'America/Bogota',
  'Asia/Kathmandu',
  'Africa/Casablanca',
  'Australia/Lord_Howe',
  'UTC',
);

describe('texts', () => {
  test('agree with the platform for every instant', () => {
    fc.assert(
      fc.property(instants, (ms) => {
        const whole = Math.floor(ms / 1000) * 1000;
        expect(instantText(ms)).toBe(new Date(whole).toISOString().replace('.000', ''));
        expect(parseInstant(instantText(ms))).toBe(whole);
        expect(parseWall(wallText(ms))).toBe(whole);
        expect(dateText(ms)).toBe(new Date(ms).toISOString().slice(0, 10));
      }),
    );
  });
  test.each(['2027-02-29', '2027-13-01', '27-01-01', '2027-1-1', ''])('%j is no date', (text) => {
    expect(parseDate(text)).toBeNull();
  });
  test.each(['2027-03-02T24:00', '2027-03-02T10:60', '2027-03-02 10:00', '2027-02-30T10:00'])(
    '%j is no wall time',
    (text) => {
      expect(parseWall(text)).toBeNull();
    },
  );
  test('an offset counts', () => {
    expect(parseInstant('2027-03-02T10:00:00+02:00')).toBe(Date.UTC(2027, 2, 2, 8));
  });
  test('a week begins on the day asked for', () => {
    const tuesday = Date.UTC(2026, 10, 24);
    expect(dateText(weekStart(tuesday))).toBe('2026-11-23');
    expect(dateText(weekStart(tuesday, 7))).toBe('2026-11-22');
    expect(dateText(weekStart(tuesday, 6))).toBe('2026-11-21');
  });
});

describe('zones', () => {
  test('offsets agree with the platform, also in zones that pause their summer time', () => {
    fc.assert(
      fc.property(instants, zones, (ms, zone) => {
        const parts = new Intl.DateTimeFormat('en-CA', {
          timeZone: zone,
          hourCycle: 'h23',
          year: 'numeric',
          month: '2-digit',
          day: '2-digit',
          hour: '2-digit',
          minute: '2-digit',
          second: '2-digit',
        }).formatToParts(ms);
        const part = (type: string) => Number(parts.find((p) => p.type === type)?.value);
        const wall = Date.UTC(
          part('year'),
          part('month') - 1,
          part('day'),
          part('hour'),
          part('minute'),
          part('second'),
        );
        expect(toWall(zone, Math.floor(ms / 1000) * 1000)).toBe(wall);
      }),
      { numRuns: 300 },
    );
  });
  test('a wall time that exists comes back to itself', () => {
    fc.assert(
      fc.property(instants, zones, (ms, zone) => {
        const wall = toWall(zone, ms);
        const back = fromWall(zone, wall);
        expect(back).not.toBeNull();
        expect(toWall(zone, back as number)).toBe(wall);
      }),
    );
  });
  test('a time the clocks leave out is no instant, and is moved on where one is needed', () => {
    const gap = Date.UTC(2027, 2, 28, 1, 30);
    expect(fromWall('Europe/Lisbon', gap)).toBeNull();
    expect(wallText(toWall('Europe/Lisbon', fromWallLenient('Europe/Lisbon', gap)))).toBe('2027-03-28T02:30:00');
  });
  test('of a time that comes twice, the first is meant', () => {
    const twice = Date.UTC(2027, 9, 31, 1, 30);
    const first = fromWall('Europe/Lisbon', twice) as number;
    expect(offsetAt('Europe/Lisbon', first)).toBe(3_600_000);
  });
  test.each(['Mars/Olympus', '', '+02:00', 'GMT+1x'])('%j is no zone', (name) => {
    expect(isZone(name)).toBe(false);
  });
});
