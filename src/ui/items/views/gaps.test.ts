import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { ItemWire } from '@/contract/items/items.ts';
import { MINUTE } from '../../common/times.ts';
import { nextGap, nextTaken, takenBy } from './gaps.ts';

const m = (minutes: number) => minutes * MINUTE;

test('the next gap is the first quarter of an hour that every trial finds free', () => {
  const span = fc.tuple(fc.nat(400), fc.integer({ min: 1, max: 90 })).map(([a, n]) => [m(a), m(a + n)] as const);
  fc.assert(
    fc.property(
      fc.array(span, { maxLength: 12 }),
      fc.nat(200),
      fc.integer({ min: 5, max: 120 }),
      (spans, from, length) => {
        const free = (at: number) => spans.every(([a, b]) => b <= at || a >= at + m(length));
        let tried: number | null = null;
        for (let at = Math.ceil(from / 15) * 15; at + length <= 600; at += 15)
          if (free(m(at))) {
            tried = m(at);
            break;
          }
        expect(nextGap(spans, m(from), m(600), m(length))).toBe(tried);
      },
    ),
  );
});

test('what is free, or says where somebody is, takes no time; what is moved is not in its own way', () => {
  const item = (id: string, more: object) =>
    ({
      id,
      start: '2027-03-03T10:00:00Z',
      end: '2027-03-03T11:00:00Z',
      allDay: false,
      shows: 'busy',
      ...more,
    }) as ItemWire;
  const items = [
    item('a', {}),
    item('b', { shows: 'free' }),
    item('c', { kind: 'whereabouts' }),
    item('d', { shows: 'away' }),
  ];
  expect(takenBy(items, 'UTC', 'a')).toHaveLength(1);
  expect(takenBy(items, 'UTC')).toHaveLength(2);
});

test('the next clash is the next start of something', () => {
  expect(
    nextTaken(
      [
        [m(30), m(60)],
        [m(10), m(20)],
      ],
      m(15),
      m(100),
    ),
  ).toBe(m(30));
  expect(nextTaken([[m(30), m(60)]], m(31), m(100))).toBeNull();
});
