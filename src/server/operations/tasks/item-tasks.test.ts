import { expect, test } from 'vitest';
import { NO_RIGHTS, PRESETS } from '@/core/access/index.ts';
import { occurrenceId } from '../../ids.ts';
import { giveAccess } from '../sharing/index.ts';
import { at } from '../small-organisation.ts';
import { listItemTasks } from './index.ts';
import { add, code, eachTaskDay, give, list, org, value } from './task-day.ts';

eachTaskDay();

const of = (who: string, id: string) => value(listItemTasks(org.ctx(who), id));
const titles = (who: string, id: string) => of(who, id).tasks.map(({ title }) => title);
const show = (to: string) =>
  value(
    giveAccess(org.ctx('ines'), org.calendar('ines'), {
      audience: { kind: 'person', id: to },
      rights: PRESETS.full,
      seen: null,
    }),
  );

test('an item’s tasks are for whoever sees all of it, as far as they see the lists and what a task belongs to', () => {
  const item = org.add('ines', 'ines', { title: 'Weir talk', when: at('2027-03-03', 10) });
  add('ines', { title: 'Print the map', tie: { item: item.id, as: 'prepare', days: 1 } });
  add('ines', { title: 'Ask the doctor', visibility: 'private', tie: { item: item.id, as: 'followUp', days: 1 } });
  add('ines', { title: 'Of something else' });
  expect(titles('ines', item.id)).toEqual(['Print the map', 'Ask the doctor']);
  expect(of('ines', item.id).lists).toEqual([{ key: list('ines'), name: '' }]);
  expect(code(listItemTasks(org.ctx('amara'), item.id))).toBe('notFound');
  expect(code(listItemTasks(org.ctx('amara'), 'nothing'))).toBe('notFound');
  show('amara');
  expect(of('amara', item.id)).toEqual({ tasks: [], cut: false, lists: [] });
  // By title alone one isn’t told what a task belongs to.
  give('amara', { ...NO_RIGHTS, sight: 'title' });
  expect(titles('amara', item.id)).toEqual([]);
  show('tomas');
  give('tomas', { ...NO_RIGHTS, sight: 'full', add: true });
  expect(titles('tomas', item.id)).toEqual(['Print the map']);
  expect(of('tomas', item.id).lists).toHaveLength(1);
});

test('of a series each occurrence has its own, and what belongs to all of it', () => {
  const series = org.add('ines', 'ines', {
    title: 'Rounds',
    when: at('2027-03-01', 9),
    repeat: { rule: 'FREQ=DAILY;COUNT=3' },
  });
  const key = series.id.split('~')[0] ?? '';
  const [first, second] = [1, 2].map((day) => occurrenceId(key, Date.UTC(2027, 2, day, 9))) as [string, string];
  add('ines', { title: 'For all', tie: { item: key, as: 'bring', days: 0 } });
  add('ines', { title: 'For the second', tie: { item: second, as: 'prepare', days: 0 } });
  expect(titles('ines', first)).toEqual(['For all']);
  expect(titles('ines', second).sort()).toEqual(['For all', 'For the second']);
});

test('more than are shown are said to be more', () => {
  const item = org.add('ines', 'ines', { title: 'Weir talk', when: at('2027-03-03', 10) });
  for (let i = 0; i <= 100; i++) add('ines', { title: `Task ${i}`, tie: { item: item.id, as: 'bring', days: 0 } });
  expect(of('ines', item.id)).toMatchObject({ cut: true });
  expect(titles('ines', item.id)).toHaveLength(100);
});
