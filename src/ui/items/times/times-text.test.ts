import { expect, test } from 'vitest';
import { timesText } from './times-text.ts';

const starts = ['2027-03-28T14:00:00Z', '2027-03-04T14:00:00Z'];

test('times are said in order, on the reader’s clock, with the clocks changed and the place named', () => {
  expect(timesText(starts, 60, 'Europe/Lisbon', 'en').split('\n')).toEqual([
    'Thursday 4 March, 14:00 to 15:00, Lisbon',
    'Sunday 28 March, 15:00 to 16:00, Lisbon',
  ]);
  expect(timesText(starts.slice(1), 60, 'America/New_York', 'pt')).toBe(
    'quinta-feira 4 de março, das 09:00 às 10:00, New York',
  );
});

test('what ends on another day says which', () => {
  expect(timesText(['2027-03-04T23:30:00Z'], 60, 'Europe/Lisbon', 'en')).toBe(
    'Thursday 4 March, 23:30 to Friday 5 March, 00:30, Lisbon',
  );
});
