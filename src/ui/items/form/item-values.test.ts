import { expect, test } from 'vitest';
import type { ItemWire } from '@/contract/items/items.ts';
import { freshFields } from '@/core/calendar/index.ts';
import { copyOf } from './item-values.ts';

const item = {
  ...freshFields('Board'),
  id: 'x',
  start: '2027-03-02T10:00:00Z',
  end: '2027-03-02T11:00:00Z',
  allDay: false,
  shows: 'busy',
  visibility: 'open',
} as unknown as ItemWire;

test('a copy of what one was shown begins private; one in the same calendar is as it was set there', () => {
  const at = Date.UTC(2027, 2, 2, 10);
  expect(copyOf(item, at, at + 3_600_000, 'Board (copy)').values).toMatchObject({
    title: 'Board (copy)',
    visibility: 'private',
  });
  expect(copyOf(item, at, at + 3_600_000, null).values).toMatchObject({ title: 'Board', visibility: 'open' });
});
