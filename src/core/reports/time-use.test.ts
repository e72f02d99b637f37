import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type TimeUseItem, timeUse } from './index.ts';

const MINUTE = 60_000;
const WEEKS = [
  [0, 100 * MINUTE],
  [100 * MINUTE, 200 * MINUTE],
] as const;
const item = (from: number, to: number, more: Partial<TimeUseItem> = {}): TimeUseItem => ({
  start: from * MINUTE,
  end: to * MINUTE,
  kind: 'meeting',
  categories: [],
  people: [],
  outside: false,
  ...more,
});

describe('time use', () => {
  test('counts what lies over another once in all, and for each kind, category and person by itself', () => {
    const used = timeUse(
      [
        item(0, 60, { categories: ['Board', 'Money'], people: ['a@x', 'b@y'], outside: true }),
        item(30, 90, { kind: 'focus', categories: ['Board'] }),
        item(90, 110, { kind: null, outside: null }),
      ],
      WEEKS,
    );
    expect(used).toEqual({
      total: 110,
      kinds: [
        { name: 'focus', minutes: 60 },
        { name: 'meeting', minutes: 60 },
        { name: '', minutes: 20 },
      ],
      categories: [
        { name: 'Board', minutes: 120 },
        { name: 'Money', minutes: 60 },
        { name: '', minutes: 20 },
      ],
      people: [
        { name: 'a@x', minutes: 60, times: 1 },
        { name: 'b@y', minutes: 60, times: 1 },
      ],
      sides: { alone: 60, inside: 0, outside: 60, unseen: 20 },
      weeks: [
        { from: 0, total: 100, kinds: expect.any(Array) },
        { from: 100 * MINUTE, total: 10, kinds: [{ name: '', minutes: 10 }] },
      ],
    });
  });

  test('what begins before or ends after counts as far as it lies within, and what goes over two weeks is one time', () => {
    const used = timeUse([item(-50, 20, { people: ['a'] }), item(90, 120, { people: ['a'] }), item(190, 400)], WEEKS);
    expect([used.total, used.people]).toEqual([60, [{ name: 'a', minutes: 50, times: 2 }]]);
    expect(timeUse([], WEEKS)).toMatchObject({ total: 0, kinds: [], weeks: [{ total: 0 }, { total: 0 }] });
  });

  test('agrees with counting minute by minute', () => {
    const items = fc.array(
      fc
        .record({
          from: fc.integer({ min: -20, max: 220 }),
          length: fc.integer({ min: 0, max: 90 }),
          kind: fc.constantFrom('meeting', 'focus', null),
          people: fc.subarray(['a', 'b', 'c']),
          outside: fc.constantFrom(true, false, null),
          categories: fc.subarray(['x', 'y']),
        })
        .map(({ from, length, ...more }) => item(from, from + length, more)),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(items, (all) => {
        const used = timeUse(all, WEEKS);
        const count = {
          total: 0,
          kinds: new Map<string, number>(),
          people: new Map<string, number>(),
          sides: new Map<string, number>(),
        };
        const more = (map: Map<string, number>, key: string) => map.set(key, (map.get(key) ?? 0) + 1);
        for (let at = 0; at < 200; at++) {
          const here = all.filter(({ start, end }) => start <= at * MINUTE && at * MINUTE < end);
          if (here.length > 0) count.total++;
          for (const one of here) {
            more(count.kinds, one.kind ?? '');
            for (const person of one.people) more(count.people, person);
            more(
              count.sides,
              one.outside === null ? 'unseen' : one.outside ? 'outside' : one.people.length > 0 ? 'inside' : 'alone',
            );
          }
        }
        expect(used.total).toBe(count.total);
        expect(used.weeks.reduce((sum, { total }) => sum + total, 0)).toBe(count.total);
        expect(new Map(used.kinds.map(({ name, minutes }) => [name, minutes]))).toEqual(count.kinds);
        expect(new Map(used.people.map(({ name, minutes }) => [name, minutes]))).toEqual(count.people);
        for (const [side, minutes] of Object.entries(used.sides)) expect(minutes).toBe(count.sides.get(side) ?? 0);
      }),
    );
  });
});
