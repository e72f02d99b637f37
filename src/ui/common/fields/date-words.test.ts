import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type DateOrder, readDate } from '@/core/sentence/index.ts';
import { dateText } from '@/core/time/index.ts';
import { dateWords } from './date-words.ts';

const ORDERS: DateOrder[] = ['dmy', 'mdy', 'ymd'];
const DAY = 86_400_000;
const date = fc.integer({ min: -3650, max: 36500 }).map((n) => dateText(Date.UTC(2027, 2, 2) + n * DAY));

describe('a date in words', () => {
  it('what is shown reads as what it shows, in every order, from any day on', () => {
    fc.assert(
      fc.property(date, date, fc.constantFrom(...ORDERS), (d, today, order) => {
        expect(readDate(dateWords(d, order), order, today)).toBe(d);
        expect(readDate(d, order, today)).toBe(d);
      }),
    );
  });
});
