import { afterEach, beforeEach, expect, test } from 'vitest';
import { timesBody, timesSeriesBody } from '@/contract/openings/openings.ts';
import { PRESETS } from '@/core/access/index.ts';
import { personByAddress } from '../../repositories/people.ts';
import { whoCanCome } from '../meetings/read-meeting.ts';
import { addRoom } from '../people/rooms.ts';
import { giveAccess } from '../sharing/give-access.ts';
import { at, type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { findSeriesTimes, findTimes, readTimesDay } from './index.ts';

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
  expect(found.runs).toMatchObject([
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

const room = (name: string, size: number, place: string) => {
  const address = `${name.toLowerCase()}@cloudmoor.example`;
  addRoom(org.ctx('ines'), { name, address, resource: 'room', place, size, zone: 'Europe/Lisbon' });
};

test('any room that would do is one of those the asker sees: the smallest that is free, at the site that is asked for', () => {
  room('Hall', 60, 'Marsh Lab');
  room('Oak', 8, 'Ridge House');
  room('Elm', 12, 'Ridge House');
  org.add('oak', 'oak', { title: 'Choir', when: at('2027-03-03', 9) });
  const findRooms = (seats: number, site: string | null) => find('tomas', { room: { seats, site } });
  const found = findRooms(8, 'ridge house');
  expect(found.rooms).toBe(2);
  const rooms = new Map(found.runs.map((run) => [run.from, run.room?.name]));
  expect(rooms.get('2027-03-03T09:00:00Z')).toBe('Elm');
  expect(rooms.get('2027-03-03T10:00:00Z')).toBe('Oak');
  expect(findRooms(8, null).rooms).toBe(3);
  expect(findRooms(61, null)).toMatchObject({
    rooms: 0,
    runs: [],
    gives: [{ what: 'room', count: 9 }],
  });
});

test('a room that isn’t seen is not counted, nor is anything worked out from its time', () => {
  room('Oak', 8, 'Ridge House');
  org.give('oak', 'tomas', PRESETS.shutOut);
  expect(find('tomas', { room: { seats: 4, site: null } })).toMatchObject({ rooms: 0, count: 0 });
  expect(find('bruno', { room: { seats: 4, site: null } }).rooms).toBe(1);
});

test('how many can come is counted by the asker’s clock, over those who are known', () => {
  org.add('bruno', 'bruno', { title: 'Bank', when: at('2027-03-03', 9) });
  const found = find('tomas', { ...come('bruno', 'dario'), sheet: true });
  const [day] = found.sheet;
  expect([found.known, day?.date, day?.can.length]).toEqual([2, '2027-03-03', 96]);
  expect([36, 40, 48].map((quarter) => day?.can[quarter])).toEqual([1, 2, 1]);
  expect([found.count, found.next]).toEqual([5, '2027-03-03T10:00:00Z']);
  // The night of a clock change has no quarter of an hour at one.
  const [spring] = find('tomas', { from: '2027-03-28', sheet: true }).sheet;
  expect(spring?.can.map((n, i) => (n === -1 ? i : -1)).filter((i) => i >= 0)).toEqual([4, 5, 6, 7]);
});

test('only while she is there, by what her whereabouts say: the next half hour with her at the Marsh Lab', () => {
  const there = { kind: 'whereabouts', shows: 'free', place: 'Marsh Lab', visibility: 'open' } as const;
  org.add('ines', 'ines', { title: 'Marsh Lab', when: { ...at('2027-03-03', 9), end: '2027-03-03T11:00' }, ...there });
  org.add('ines', 'ines', { title: 'Cores', when: at('2027-03-03', 9) });
  const body = { length: 30, place: 'marsh lab', there: true };
  expect(find('tomas', body)).toMatchObject({ next: '2027-03-03T10:00:00Z', count: 3 });
  expect(find('tomas', { ...body, place: 'Seed Store' })).toMatchObject({
    next: null,
    gives: [{ what: 'there', who: 'Ines' }],
  });
});

test('the day of those who are asked is shown as the asker sees it, and who isn’t known without anything', () => {
  org.add('ines', 'ines', { title: 'Doctor', when: at('2027-03-03', 9), visibility: 'private' });
  org.add('bruno', 'bruno', { title: 'Bank', when: at('2027-03-03', 10) });
  org.add('dario', 'dario', { title: 'Secret', when: at('2027-03-03', 10) });
  const body = timesBody.parse({
    length: 60,
    from: '2027-03-03',
    days: 7,
    zone: 'Europe/Lisbon',
    ...come('bruno', 'dario'),
  });
  const day = readTimesDay(org.ctx('tomas'), org.calendar('ines'), body);
  expect(day).toMatchObject({
    value: {
      lanes: [
        { name: 'Ines', sight: 'full', items: [{ title: null, withheld: true, start: '2027-03-03T09:00:00Z' }] },
        { name: 'Bruno', sight: 'busy', items: [{ title: null, shows: 'busy' }] },
        { name: 'Dario', sight: 'nothing', items: [] },
      ],
    },
  });
  expect(JSON.stringify(day)).not.toMatch(/Doctor|Bank|Secret/);
});

test('a time for a series is offered by how often it fits, with the dates that fail and for whom', () => {
  org.add('bruno', 'bruno', { title: 'Bank', when: { ...at('2027-03-10', 9), end: '2027-03-10T18:00' } });
  const body = timesSeriesBody.parse({
    ...{ length: 60, from: '2027-03-03', days: 1, zone: 'Europe/Lisbon', every: 1, times: 3 },
    ...come('bruno'),
  });
  const found = findSeriesTimes(org.ctx('tomas'), org.calendar('ines'), body);
  if (!found.ok) throw new Error(found.code);
  const { starts } = found.value;
  expect(starts[0]).toEqual({ start: '2027-03-04T09:00:00Z', end: '2027-03-04T10:00:00Z', fits: 3, fails: [] });
  expect(starts.find((one) => one.start === '2027-03-03T09:00:00Z')).toMatchObject({
    fits: 2,
    fails: [{ at: '2027-03-10T09:00:00Z', who: ['Bruno'] }],
  });
});

test('to somebody from outside an address they are shown nothing of is one like any other, wherever it is asked about', () => {
  org.works('dario', '09:00', '10:00');
  const address = 'marta@quill-audit.example';
  const rights = PRESETS.freeBusy;
  giveAccess(org.ctx('ines'), org.calendar('ines'), {
    audience: { kind: 'address', address, name: 'Marta' },
    rights,
    seen: null,
  });
  giveAccess(org.ctx('dario'), org.calendar('dario'), {
    audience: { kind: 'everyone' },
    rights: PRESETS.shutOut,
    seen: null,
  });
  const marta = personByAddress(org.db, address)?.handle ?? '';
  const findFor = (who: string) => find(marta, { people: [{ address: who, must: true }] });
  const there = 'dario@cloudmoor.example';
  const nobody = 'nobody@cloudmoor.example';
  const bare = (text: object) => JSON.stringify(text).replaceAll(there, '?').replaceAll(nobody, '?');
  expect(bare(findFor(there))).toBe(bare(findFor(nobody)));
  const body = (who: string) =>
    timesBody.parse({
      ...{ length: 60, from: '2027-03-03', days: 1, zone: 'Europe/Lisbon' },
      people: [{ address: who, must: true }],
    });
  const day = (who: string) => bare(readTimesDay(org.ctx(marta), org.calendar('ines'), body(who)));
  expect(day(there)).toBe(day(nobody));
  const coming = (who: string) =>
    bare(whoCanCome(org.ctx(marta), org.calendar('ines'), { people: [who], when: at('2027-03-03', 9), item: null }));
  expect(coming(there)).toBe(coming(nobody));
  // Inside, that people are there is no secret.
  expect(find('tomas', { people: [{ address: there, must: true }] }).unknown).toEqual(['Dario']);
});

test('a series reaches a year at most, said at how many times', () => {
  const body = { length: 60, from: '2027-03-03', days: 1, zone: 'Europe/Lisbon', every: 4, times: 14 };
  expect(timesSeriesBody.safeParse(body).error?.issues).toMatchObject([{ path: ['times'], message: 'seriesLong:52' }]);
  expect(timesSeriesBody.safeParse({ ...body, times: 13 }).success).toBe(true);
});

test('what of somebody’s time is more than one answer holds is read on, so that nothing later is taken for free', () => {
  // Two a day over most of a year, with long notes: several answers of it.
  const notes = 'x'.repeat(1900);
  for (let n = 0; n < 8; n++)
    org.add('ines', 'ines', {
      ...{ title: `Every day ${n}`, notes, when: { ...at('2027-03-03', 9), end: '2027-03-03T12:00' } },
      repeat: { rule: 'FREQ=DAILY;COUNT=400' },
    });
  const body = timesSeriesBody.parse({
    ...{ length: 60, from: '2027-03-03', days: 1, zone: 'Europe/Lisbon', every: 4, times: 12 },
  });
  const found = findSeriesTimes(org.ctx('tomas'), org.calendar('ines'), body);
  expect(found).toMatchObject({ ok: true, value: { starts: [] } });
});
