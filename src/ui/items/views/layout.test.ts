import { expect, test } from 'vitest';
import type { ItemWire } from '@/contract/items/items.ts';
import { layOut } from './layout.ts';

const item = (id: string, from: number, to: number): ItemWire =>
  ({
    id,
    title: id,
    start: `2027-03-02T${String(from).padStart(2, '0')}:00:00Z`,
    end: `2027-03-02T${String(to).padStart(2, '0')}:00:00Z`,
    allDay: false,
    shows: 'busy',
  }) as ItemWire;
const DAY = Date.UTC(2027, 2, 2);
const clashing = (items: readonly ItemWire[], whose?: (item: ItemWire) => string) =>
  layOut(items, DAY, 1, 'UTC', whose)
    .days.flat()
    .filter((placed) => placed.clash)
    .map((placed) => placed.item.id);

test('what lies over another of the same calendar clashes; two people at one time don’t', () => {
  const all = () => [item('board', 9, 11), item('dentist', 10, 12), item('budget', 10, 11)];
  expect(clashing(all())).toEqual(['dentist', 'budget']);
  const whose = ({ id }: ItemWire) => (id === 'dentist' ? 'Bruno' : 'Inés');
  expect(clashing(all(), whose)).toEqual(['budget']);
});
