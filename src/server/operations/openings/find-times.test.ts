import { afterEach, beforeEach, expect, test } from 'vitest';
import { timesBody } from '@/contract/openings.ts';
import { PRESETS } from '@/core/access/index.ts';
import { at, type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { findTimes } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('dario', 'tomas', PRESETS.shutOut);
  org.works('ines', '09:00', '12:00');
});
afterEach(() => org.close());

const find = (who: string, more: object = {}) => {
  const body = timesBody.parse({ length: 60, from: '2027-03-03', days: 1, zone: 'Europe/Lisbon', ...more });
  const found = findTimes(org.ctx(who), org.calendar('ines'), body);
  if (!found.ok) throw new Error(found.code);
  return found.value;
};
const come = (...handles: string[]) => ({
  people: handles.map((h) => ({ address: h.includes('@') ? h : `${h}@cloudmoor.example`, must: true })),
});

test('times that work are found from what the asker sees, best first; who isn’t known is named and counts nowhere', () => {
  org.add('ines', 'ines', { title: 'Board', when: at('2027-03-03', 9) });
  org.add('dario', 'dario', { title: 'Secret', when: at('2027-03-03', 10) });
  const found = find('tomas', come('dario', 'marta@quill-audit.example'));
  expect(found.unknown).toEqual(['Dario', 'marta@quill-audit.example']);
  expect(found.runs).toEqual([
    { from: '2027-03-03T10:00:00Z', to: '2027-03-03T10:00:00Z', end: '2027-03-03T11:00:00Z', reasons: [] },
    { from: '2027-03-03T10:30:00Z', to: '2027-03-03T11:00:00Z', end: '2027-03-03T11:30:00Z', reasons: [] },
    {
      from: '2027-03-03T10:15:00Z',
      to: '2027-03-03T10:15:00Z',
      end: '2027-03-03T11:15:00Z',
      reasons: [{ why: 'gap', who: 'Ines', minutes: 15 }],
    },
  ]);
});

test('where nothing fits it is said what would have to give, and what that opens', () => {
  org.add('ines', 'ines', { title: 'Perhaps', when: at('2027-03-03', 9), shows: 'tentative' });
  org.add('bruno', 'bruno', { title: 'Bank', when: { ...at('2027-03-03', 10), end: '2027-03-03T18:00' } });
  const found = find('tomas', come('bruno'));
  expect(found.runs).toEqual([]);
  expect(found.gives).toMatchObject([
    { what: 'tentative', count: 1, first: '2027-03-03T09:00:00Z' },
    { what: 'hours', first: '2027-03-03T00:00:00Z' },
    { what: 'without', who: 'Bruno', first: '2027-03-03T10:00:00Z' },
  ]);
});

test('what the asker sees less of opens more, by their own views alone', () => {
  org.add('ines', 'ines', { title: 'Doctor', when: at('2027-03-03', 9), visibility: 'private' });
  expect(find('tomas').runs[0]?.from).toBe('2027-03-03T10:00:00Z');
  expect(JSON.stringify(find('tomas'))).not.toContain('Doctor');
});
