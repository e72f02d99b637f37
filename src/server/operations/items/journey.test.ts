import { afterEach, beforeEach, expect, test } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { itemByKey } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { readItem } from '../deciding/access/find-item.ts';
import { changeMeeting, createMeeting } from '../meetings/index.ts';
import { type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';

import { exportFile } from './export-file.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.full);
});
afterEach(() => org.close());

const zone = 'Europe/Lisbon';
const flight = { start: '2027-03-03T10:00', end: '2027-03-03T14:30', allDay: false, zone, endZone: 'America/Bogota' };
const add = (when: object) =>
  createMeeting(org.ctx('ines'), org.calendar('ines'), newItem.parse({ title: 'Flight', when }));
const stored = (key: string) => itemByKey(org.db, key) as StoredItem;
const made = (): string => {
  const added = add(flight);
  if (!added.ok) throw new Error(added.code);
  return added.value.item?.id ?? '';
};
const change = (key: string, patch: object) =>
  changeMeeting(org.ctx('ines'), key, { version: stored(key).version, scope: 'all', fields: {}, ...patch });

test('a journey begins on one clock and ends on another; whoever only reads it sees instants alone', () => {
  const key = made();
  expect(stored(key)).toMatchObject({
    start: Date.parse('2027-03-03T10:00Z'),
    end: Date.parse('2027-03-03T19:30Z'),
    endZone: 'America/Bogota',
  });
  const own = readItem(org.ctx('ines'), key);
  expect(own).toMatchObject({ value: { asSet: { zone, endZone: 'America/Bogota' } } });
  expect(JSON.stringify(readItem(org.ctx('tomas'), key))).not.toContain('America/Bogota');
});

test('it may end earlier by the clock than it began, and not before it began', () => {
  expect(add({ ...flight, zone: 'Asia/Tokyo', end: '2027-03-03T08:00' }).ok).toBe(true);
  expect(add({ ...flight, end: '2027-03-03T05:00' })).toMatchObject({ fields: { end: 'endBeforeStart' } });
  expect(add({ ...flight, endZone: 'Nowhere/Land' })).toMatchObject({ fields: { endZone: 'zone' } });
});

test('the zone it ends in stays while it is moved or renamed, and goes when that is said', () => {
  const key = made();
  change(key, { fields: { title: 'Later flight' } });
  change(key, { when: { start: '2027-03-04T10:00', end: '2027-03-04T19:30', allDay: false, zone } });
  expect(stored(key)).toMatchObject({ end: Date.parse('2027-03-04T19:30Z'), endZone: 'America/Bogota' });
  change(key, { when: { start: '2027-03-04T10:00', end: '2027-03-04T19:30', allDay: false, zone, endZone: null } });
  expect(stored(key).endZone).toBeNull();
  change(key, { when: { ...flight, endZone: zone } });
  expect(stored(key).endZone).toBeNull();
});

test('a file says both clocks, and so it comes back', () => {
  made();
  const file = exportFile(org.ctx('ines'), org.calendar('ines'));
  const text = file.ok ? file.value.text : '';
  expect(text).toContain('DTSTART;TZID=Europe/Lisbon:20270303T100000');
  expect(text).toContain('DTEND;TZID=America/Bogota:20270303T143000');
  expect(text).toContain('TZID:America/Bogota');
});
