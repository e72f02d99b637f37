import { afterEach, beforeEach, expect, test } from 'vitest';
import { itemPatch } from '@/contract/items/items.ts';
import { timesBody } from '@/contract/openings/openings.ts';
import { PRESETS } from '@/core/access/index.ts';
import { itemByKey } from '../../repositories/items.ts';
import { readItem } from '../deciding/access/find-item.ts';

import { changeMeeting } from '../meetings/index.ts';
import { at, type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { findRoom } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  for (const handle of ['ines', 'bruno']) org.works(handle, '09:00', '12:00');
});
afterEach(() => org.close());

const find = (who: string, more: object = {}) => {
  const body = timesBody.parse({ length: 60, from: '2027-03-03', days: 1, zone: 'Europe/Lisbon', ...more });
  const found = findRoom(org.ctx(who), org.calendar('ines'), body);
  if (!found.ok) throw new Error(found.code);
  return found.value;
};
/** Somebody else was asked to it, and is inside. */
const MET = {
  organiser: { name: 'Ines', address: 'ines@cloudmoor.example' },
  attendees: [{ name: 'Amara', address: 'amara@cloudmoor.example', answer: 'accepted' as const }],
};
const bruno = { people: [{ address: 'bruno@cloudmoor.example', must: true }] };

test('the cheapest that has to move is found, with where it goes and who would be told', () => {
  org.add('ines', 'ines', { title: 'Board', when: at('2027-03-03', 9, 2) }, MET);
  const { id } = org.add('ines', 'ines', { title: 'Perhaps', when: at('2027-03-03', 11), shows: 'tentative' });
  const { plan, movable } = find('tomas');
  expect(movable).toBe(2);
  expect(plan).toMatchObject({
    start: '2027-03-03T11:00:00Z',
    cost: 2,
    moves: [{ item: id, title: 'Perhaps', owner: 'Ines', from: '2027-03-03T11:00:00Z', minutes: 60, told: [] }],
  });
  // Within its own week, and never before now.
  expect(plan?.moves[0]?.to).toBe('2027-03-02T09:00:00Z');
});

test('what the asker may not change stays, whoever’s it is, and so does what is private to them', () => {
  org.add('ines', 'ines', { title: 'Doctor', when: at('2027-03-03', 9, 2), visibility: 'private' });
  org.add('bruno', 'bruno', { title: 'Bank', when: at('2027-03-03', 11) });
  const nothing = find('tomas', bruno);
  expect(nothing).toMatchObject({ plan: null, movable: 0 });
  expect(JSON.stringify(nothing)).not.toMatch(/Doctor|Bank/);
  org.give('bruno', 'tomas', PRESETS.delegate);
  expect(find('tomas', bruno).plan).toMatchObject({ start: '2027-03-03T11:00:00Z', moves: [{ title: 'Bank' }] });
});

test('what is marked as fixed stays, the viewer, until it no longer is', () => {
  const { id } = org.add('ines', 'ines', { title: 'Board', when: at('2027-03-03', 9, 3) });
  expect(find('tomas').plan).toMatchObject({ moves: [{ title: 'Board' }] });
  const mark = (who: string, fixed: boolean) =>
    changeMeeting(org.ctx(who), id, itemPatch.parse({ version: itemByKey(org.db, id)?.version, fixed }));
  expect(mark('tomas', true)).toMatchObject({ value: { item: { asSet: { fixed: true } } } });
  expect(find('tomas')).toMatchObject({ plan: null, movable: 0 });
  // Who sees all of it and may not change it is told nothing of that.
  org.give('ines', 'wren', PRESETS.full);
  expect(mark('wren', false)).toMatchObject({ code: 'mayNotChange' });
  expect(JSON.stringify(readItem(org.ctx('wren'), id))).not.toContain('fixed');
  mark('ines', false);
  expect(find('tomas').plan).toMatchObject({ moves: [{ title: 'Board' }] });
});

test('where it fits already nothing moves', () => {
  expect(find('tomas').plan).toMatchObject({ cost: 0, moves: [] });
});
