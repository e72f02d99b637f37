import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import { hub } from '../../live/hub.ts';
import { Presence } from '../../live/presence.ts';
import { takeAccess } from '../sharing/give-access.ts';
import { listSightlines } from '../sharing/sightlines.ts';
import { at, type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { sayLooking } from './index.ts';

let org: SmallOrganisation;
let id = '';
let when = START;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('ines', 'amara', PRESETS.full);
  ({ id } = org.add('ines', 'ines', { title: 'Weir', when: at('2027-03-03', 10) }));
  // A moment of its own for each test: who is there outlasts an organisation.
  when += 3_600_000;
});
afterEach(() => org.close());
const say = (who: string, doing: 'looks' | 'types' | 'gone' = 'looks', later = 0) => {
  const answer = sayLooking(org.ctx(who, when + later), id, { doing });
  return answer.ok ? answer.value.others.map((other) => `${other.name}${other.types ? ' types' : ''}`) : answer.code;
};

test('those who may change an item hear who else of them has it open, until they leave or say nothing more', () => {
  expect(say('ines')).toEqual([]);
  expect(say('tomas', 'types')).toEqual(['Ines']);
  expect(say('ines')).toEqual(['Tomas types']);
  expect(say('tomas', 'gone')).toEqual(['Ines']);
  expect(say('ines')).toEqual([]);
  say('tomas');
  expect(say('ines', 'looks', 46_000)).toEqual([]);
});

test('that somebody reads it is told to nobody, and who reads it hears of nobody', () => {
  expect(say('amara')).toEqual([]);
  expect(say('ines')).toEqual([]);
  expect(say('amara')).toEqual([]);
  expect(say('wren')).toBe('notFound');
});

test('who may no longer change it is told of no more, and hears nothing more', () => {
  say('tomas');
  const told = vi.spyOn(hub(), 'tell');
  const key = org.calendar('ines');
  const lines = listSightlines(org.ctx('ines'), key);
  const row = lines.ok ? lines.value.rows.find((r) => 'id' in r.audience && r.audience.id === 'tomas') : undefined;
  takeAccess(org.ctx('ines'), key, {
    audience: { kind: 'person', id: 'tomas' },
    seen: row?.grants[0]?.key || '',
  });
  told.mockClear();
  expect(say('ines')).toEqual([]);
  expect(told).not.toHaveBeenCalled();
  told.mockRestore();
});

test('there is a most of everything', () => {
  const presence = new Presence();
  for (let n = 0; n < 40; n++) presence.say('a', n, 'looks', 0);
  expect(presence.others('a', -1, 0)).toHaveLength(30);
  for (let n = 0; n < 6000; n++) presence.say(`item ${n}`, 1, 'looks', 0);
  expect(presence.say('one more', 1, 'looks', 10)).toBe(false);
  // Those who said nothing more make room.
  expect(presence.say('one more', 1, 'looks', 60_000)).toBe(true);
});
