import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import { setMembership } from '../people/groups.ts';
import { beginCalendar, changePreferences } from '../people/people.ts';
import { takeAccess } from '../sharing/give-access.ts';
import { listSightlines } from '../sharing/sightlines.ts';
import { type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { changeLane, dropLane, listLanes, orderLanes, saveLanes } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('bruno', 'tomas', PRESETS.outline);
  org.give('dario', 'tomas', PRESETS.shutOut);
});
afterEach(() => org.close());

const save = (...people: string[]) => saveLanes(org.ctx('tomas'), { people, group: null, calendars: [] });
const lanes = (who = 'tomas') => listLanes(org.ctx(who)).lanes;
const names = () => lanes().map((lane) => lane.owner.handle);
const laneOf = (handle: string) => lanes().find((lane) => lane.owner.handle === handle);

describe('kept lanes', () => {
  test('one’s own and those one runs stand there by themselves, until they are taken out; that takes no access', () => {
    expect(lanes().map((l) => [l.owner.handle, l.heading, l.shown])).toEqual([
      ['tomas', 'run', false],
      ['ines', 'run', false],
    ]);
    expect(dropLane(org.ctx('tomas'), laneOf('ines')?.key ?? '')).toMatchObject({ ok: true });
    expect(names()).toEqual(['tomas']);
    expect(save('ines')).toMatchObject({ value: { kept: 1, already: 0 } });
    expect(laneOf('ines')).toMatchObject({ shown: true, sight: 'full', calendar: org.calendar('ines') });
  });

  test('kept from the directory they are for whoever looks, and where nothing is seen there is a head and nothing else', () => {
    save('bruno', 'dario');
    expect(laneOf('bruno')).toMatchObject({ heading: 'look', sight: 'outline', shown: true });
    expect(laneOf('dario')).toMatchObject({ heading: 'look', sight: 'nothing', calendar: null, of: null });
    expect(save('nobody')).toMatchObject({ code: 'notFound' });
    expect(save('bruno')).toMatchObject({ value: { kept: 0, already: 1 } });
    // They are one's own: nobody else has them.
    expect(lanes('amara').map((l) => l.owner.handle)).toEqual(['amara']);
  });

  test('all of a group at once; in one’s own order, under one’s own names, in one’s own colours', () => {
    const key = org.group('Weir', ['bruno', 'wren']);
    expect(saveLanes(org.ctx('tomas'), { people: [], group: key, calendars: [] })).toMatchObject({
      value: { kept: 2 },
    });
    const [bruno, wren] = [laneOf('bruno')?.key ?? '', laneOf('wren')?.key ?? ''];
    changeLane(org.ctx('tomas'), bruno, { name: 'Money', colour: 4 });
    expect(laneOf('bruno')).toMatchObject({ name: 'Money', colour: 4, shown: true });
    changeLane(org.ctx('tomas'), bruno, { name: null, shown: false });
    expect(laneOf('bruno')).toMatchObject({ name: null, colour: 4, shown: false });
    orderLanes(org.ctx('tomas'), [wren, bruno]);
    expect(names()).toEqual(['wren', 'bruno', 'tomas', 'ines']);
    expect(changeLane(org.ctx('amara'), bruno, { shown: true })).toMatchObject({ code: 'notFound' });
    expect(dropLane(org.ctx('amara'), bruno)).toMatchObject({ code: 'notFound' });
  });

  test('one whose rights changed moves under the other heading, and says so until one has looked', () => {
    save('ines', 'bruno');
    const rows = listSightlines(org.ctx('ines'), org.calendar('ines'));
    const audience = { kind: 'person', id: 'tomas' } as const;
    const row = rows.ok ? rows.value.rows.find((r) => r.audience.kind === 'person') : null;
    takeAccess(org.ctx('ines'), org.calendar('ines'), { audience, seen: row?.grants[0]?.key ?? '' });
    expect(laneOf('ines')).toMatchObject({ heading: 'look', moved: true });
    changeLane(org.ctx('tomas'), laneOf('ines')?.key ?? '', { shown: true });
    expect(laneOf('ines')?.moved).toBe(true);
    changeLane(org.ctx('tomas'), laneOf('ines')?.key ?? '', { looked: true });
    expect(laneOf('ines')?.moved).toBe(false);
  });
});

test('two people of one colour are told apart, whoever chose theirs; one’s own choice for a lane stays', () => {
  const prefer = { zone: 'Europe/Lisbon', hours: '24', weekFirst: 1, dateOrder: 'dmy' } as const;
  for (const who of ['tomas', 'ines', 'amara', 'bruno', 'dario', 'wren'])
    expect(changePreferences(org.ctx(who), { ...prefer, colour: who === 'tomas' ? 0 : 4 }).ok).toBe(true);
  for (const who of ['bruno', 'dario', 'wren']) save(who);
  const colours = ['tomas', 'bruno', 'dario', 'wren'].map((who) => laneOf(who)?.colour);
  expect(colours[0]).toBe(0);
  expect(new Set(colours).size).toBe(4);
  changeLane(org.ctx('tomas'), laneOf('bruno')?.key ?? '', { colour: 0 });
  expect(laneOf('bruno')?.colour).toBe(0);
});

test('a calendar made for a group is a lane of everybody in it by themselves, shown, until they take it out or leave', () => {
  const group = org.group('Rangers', ['amara', 'bruno']);
  const made = beginCalendar(org.ctx('ines'), { of: 'ines', name: 'Patrols', group });
  expect(made.ok).toBe(true);
  const of = (who: string) =>
    listLanes(org.ctx(who))
      .lanes.filter((lane) => lane.of === 'Patrols')
      .map((lane) => [lane.heading, lane.shown]);
  expect([of('amara'), of('bruno'), of('wren')]).toEqual([[['run', true]], [['run', true]], []]);
  const key = listLanes(org.ctx('amara')).lanes.find((lane) => lane.of === 'Patrols')?.key ?? '';
  dropLane(org.ctx('amara'), key);
  expect(of('amara')).toEqual([]);
  // It is kept again like any other, and gone with the group.
  saveLanes(org.ctx('amara'), { people: [], group: null, calendars: [made.ok ? made.value.calendar : ''] });
  expect(of('amara')).toEqual([['run', true]]);
  setMembership(org.ctx('ines'), group, { handle: 'bruno', member: false });
  expect(of('bruno')).toEqual([]);
  // Only one's own calendar is for a group, and only a group that is there.
  org.give('ines', 'wren', PRESETS.steward);
  expect(beginCalendar(org.ctx('wren'), { of: 'ines', name: 'Other', group })).toMatchObject({ code: 'ownerOnly' });
  expect(beginCalendar(org.ctx('ines'), { of: 'ines', name: 'Other', group: 'none' })).toMatchObject({
    fields: { group: 'group' },
  });
});
