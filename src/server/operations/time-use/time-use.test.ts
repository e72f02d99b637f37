import { afterEach, beforeEach, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import { at, type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { readTimeUse, saveTimeShares, timeUseFile } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('ines', 'amara', PRESETS.full);
});
afterEach(() => org.close());

const WEEK = { from: '2027-03-01', until: '2027-03-07' };
const read = (who: string, query: Parameters<typeof readTimeUse>[2] = WEEK) => {
  const used = readTimeUse(org.ctx(who), 'ines', query);
  if (!used.ok) throw new Error(JSON.stringify(used));
  return used.value;
};
const person = (name: string, address = `${name.toLowerCase()}@cloudmoor.example`) => ({
  name,
  address,
  answer: 'accepted' as const,
});

test('hours by kind, category, people and side, as whoever acts sees them; a clock change takes its hour', () => {
  const attendees = [person('Bruno'), person('Marta', 'marta@quill.example')];
  org.add('ines', 'ines', { title: 'Audit', when: at('2027-03-02', 10, 2), categories: ['Money'] }, { attendees });
  org.add('ines', 'ines', { title: 'Work', when: at('2027-03-02', 11, 2), kind: 'focus' });
  org.add('ines', 'ines', { title: 'zqdoctor', when: at('2027-03-04', 9), visibility: 'private' }, { attendees });
  org.add('ines', 'ines', { title: 'At home', when: at('2027-03-05', 9, 8), kind: 'whereabouts', shows: 'free' });
  const mine = read('ines').period;
  expect(mine).toMatchObject({
    total: 240,
    kinds: [
      { name: 'meeting', minutes: 180 },
      { name: 'focus', minutes: 120 },
    ],
    categories: [
      { name: '', minutes: 180 },
      { name: 'Money', minutes: 120 },
    ],
    people: [
      { name: 'Bruno', minutes: 180, times: 2 },
      { name: 'marta@quill.example', minutes: 180, times: 2 },
    ],
    sides: { alone: 120, inside: 0, outside: 180, unseen: 0 },
  });
  // What is withheld from whoever acts only takes time: no kind, nobody with whom.
  const theirs = read('tomas').period;
  expect(theirs).toMatchObject({ total: 240, sides: { alone: 120, outside: 120, unseen: 60 } });
  expect(theirs.kinds).toContainEqual({ name: '', minutes: 60 });
  expect(theirs.people.map(({ minutes }) => minutes)).toEqual([120, 120]);
  expect(readTimeUse(org.ctx('amara'), 'ines', WEEK)).toMatchObject({ code: 'notFound' });
  expect(readTimeUse(org.ctx('ines'), 'nobody', WEEK)).toMatchObject({ code: 'notFound' });
  // The night of 28 March is an hour shorter in Lisbon.
  const night = { start: '2027-03-28T00:00', end: '2027-03-28T04:00', allDay: false, zone: 'Europe/Lisbon' };
  org.add('ines', 'ines', { title: 'Night watch', when: night });
  expect(read('ines', { from: '2027-03-28', until: '2027-03-28' }).period.total).toBe(180);
});

test('week by week and beside another period; bad days are refused at their field', () => {
  for (const date of ['2027-02-24', '2027-03-02', '2027-03-03', '2027-03-10'])
    org.add('ines', 'ines', { title: 'Board', when: at(date, 9) });
  const used = read('ines', {
    from: '2027-03-01',
    until: '2027-03-14',
    otherFrom: '2027-02-15',
    otherUntil: '2027-02-28',
  });
  expect(used.period.weeks.map(({ from, total }) => [from, total])).toEqual([
    ['2027-03-01', 120],
    ['2027-03-08', 60],
  ]);
  expect(used.other).toMatchObject({ total: 60, weeks: [{ total: 0 }, { total: 60 }] });
  const refused = (from: string, until: string) => {
    const answer = readTimeUse(org.ctx('ines'), 'ines', { from, until });
    return answer.ok ? null : answer.fields;
  };
  expect(refused('2027-03-08', '2027-03-01')).toEqual({ until: 'endBeforeStart' });
  expect(refused('2027-03-08', '2029-03-01')).toEqual({ until: 'daysMost:371' });
  // A series over half a year is counted whole, though lists hold fewer days.
  org.add('ines', 'ines', { title: 'Daily', when: at('2027-04-01', 9), repeat: { rule: 'FREQ=DAILY;COUNT=150' } });
  expect(read('ines', { from: '2027-04-01', until: '2027-12-31' }).period.total).toBe(150 * 60);
});

test('shares are wished for by the owner and whoever acts, once each, as they were last read', () => {
  const share = { by: 'kind', name: 'focus', percent: 40 } as const;
  expect(saveTimeShares(org.ctx('amara'), 'ines', { shares: [share], version: 0 })).toMatchObject({ code: 'notFound' });
  expect(saveTimeShares(org.ctx('tomas'), 'ines', { shares: [share], version: 0 })).toMatchObject({ ok: true });
  expect(saveTimeShares(org.ctx('ines'), 'ines', { shares: [], version: 0 })).toMatchObject({
    code: 'changedMeanwhile',
  });
  expect(saveTimeShares(org.ctx('ines'), 'ines', { shares: [share, share], version: 1 })).toMatchObject({
    fields: { 'shares.1.name': 'shareTwice' },
  });
  expect(read('ines')).toMatchObject({ shares: [share], version: 1 });
});

test('as a table', () => {
  org.add('ines', 'ines', { title: 'Audit', when: at('2027-03-02', 10, 2), categories: ['=1+1'] });
  const file = timeUseFile(org.ctx('ines'), 'ines', { ...WEEK, otherFrom: '2027-02-22', otherUntil: '2027-02-28' });
  const lines = file.ok ? file.value.trim().split('\r\n') : [];
  expect(lines[0]).toBe('by,name,minutes 2027-03-01 2027-03-07,minutes 2027-02-22 2027-02-28,wished percent');
  expect(lines).toContain('kind,Meeting,120,0,');
  expect(lines).toContain(`category,"'=1+1",120,0,`);
});
