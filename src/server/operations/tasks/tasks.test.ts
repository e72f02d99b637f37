import { describe, expect, test } from 'vitest';
import { type NewTask, type TaskWire, taskWire } from '@/contract/tasks.ts';
import { NO_RIGHTS, PRESETS } from '@/core/access/index.ts';
import { trailByKey } from '../../repositories/trail.ts';
import { changeItem } from '../items/index.ts';
import { addList, bringListBack, removeList } from '../lists/index.ts';
import { at } from '../small-organisation.ts';
import { listTrail } from '../trail/index.ts';
import { addTask, listTaskLists, listTasks, removeTask, undoTask } from './index.ts';
import {
  add,
  change,
  code,
  eachTaskDay,
  fields,
  give,
  input,
  list,
  on,
  org,
  tasks,
  titles,
  value,
} from './task-day.ts';

eachTaskDay();

describe('a list of tasks', () => {
  test('is nobody’s but its owner’s until it is given; not there and not given are answered alike', () => {
    give('tomas', PRESETS.delegate, org.calendar('ines'));
    add('ines', { title: 'Sign the lease' });
    expect(titles('ines')).toEqual(['Sign the lease']);
    for (const who of ['tomas', 'amara', 'bruno']) {
      expect(listTasks(org.ctx(who), list('ines'), {})).toEqual(listTasks(org.ctx(who), 'nothing', {}));
      expect(listTaskLists(org.ctx(who), 'ines')).toEqual(listTaskLists(org.ctx(who), 'nobody'));
    }
  });

  test('shows each sight its fields and no more, and leaves out what is private so that nothing tells of it', () => {
    add('ines', { title: 'Sign', notes: 'In blue', due: on('2027-03-04') });
    add('ines', { title: 'Doctor', visibility: 'private' });
    give('tomas', { ...NO_RIGHTS, sight: 'full' });
    give('amara', { ...NO_RIGHTS, sight: 'title' });
    const [seen, ...more] = tasks('amara');
    expect(more).toEqual([]);
    expect(Object.keys(seen as object).sort()).toEqual(['done', 'due', 'id', 'list', 'title']);
    expect(seen?.id).not.toBe(tasks('ines')[0]?.id);
    expect(tasks('tomas').map((task) => [task.title, task.notes, task.may])).toEqual([
      ['Sign', 'In blue', { change: false, remove: false }],
    ]);
    expect(value(listTasks(org.ctx('amara'), list('ines'), {})).list.open).toBe(1);
    for (const who of ['ines', 'tomas', 'amara']) for (const task of tasks(who)) taskWire.parse(task);
  });

  test('is written in its owner’s name within what one was given, and the trail says by whom', () => {
    give('tomas', { ...NO_RIGHTS, sight: 'full', add: true, change: 'own', remove: 'own' });
    const own = add('tomas', { title: 'Book the hall' });
    const hers = add('ines', { title: 'Sign' });
    expect(own.created).toMatchObject({ actor: 'Tomas', principal: 'Ines' });
    expect(value(change('tomas', own, { done: true })).task).toMatchObject({ done: true });
    const [seen] = tasks('tomas');
    expect(code(change('tomas', seen as TaskWire, { done: true }))).toBe('mayNotChange');
    expect(code(removeTask(org.ctx('tomas'), hers.id, { version: 1 }))).toBe('mayNotRemove');
    expect(code(addTask(org.ctx('amara'), list('ines'), input({ title: 'x' })))).toBe('notFound');
    const trail = value(listTrail(org.ctx('ines'), { of: 'name', kind: 'tasks' }));
    expect(trail.entries.map((e) => [e.actor, e.verb, e.items])).toEqual([
      ['Tomas', 'task.done', ['Book the hall']],
      ['Ines', 'task.added', ['Sign']],
      ['Tomas', 'task.added', ['Book the hall']],
    ]);
  });

  test('is taken away with all that is in it, and brought back as it was', () => {
    const key = value(addList(org.ctx('ines'), 'tasks', 'ines', { name: 'Board' })).list;
    give('tomas', PRESETS.full, key);
    add('ines', { title: 'Minutes' }, key);
    expect(titles('tomas', key)).toEqual(['Minutes']);
    expect(fields(addList(org.ctx('ines'), 'tasks', 'ines', { name: 'board' }))).toEqual({ name: 'listTaken' });
    expect(code(removeList(org.ctx('tomas'), key))).toBe('ownerOnly');
    expect(code(removeList(org.ctx('ines'), list('ines')))).toBe('mainStays');
    value(removeList(org.ctx('ines'), key));
    expect(code(listTasks(org.ctx('ines'), key, {}))).toBe('notFound');
    value(bringListBack(org.ctx('ines'), key));
    expect(titles('tomas', key)).toEqual(['Minutes']);
  });

  test('is read a page at a time: each task once, and nothing of the number of those that aren’t shown', () => {
    give('tomas', { ...NO_RIGHTS, sight: 'full' });
    for (let i = 0; i < 1100; i++)
      add('ines', {
        title: `T${i}`,
        visibility: i % 10 === 0 ? 'private' : 'follow',
        due: i % 3 === 0 ? on('2027-03-04') : null,
      });
    const all: string[] = [];
    let after: string | undefined;
    do {
      const page = value(listTasks(org.ctx('tomas'), list('ines'), { after }));
      all.push(...page.tasks.map((task) => task.title));
      after = page.more ?? undefined;
    } while (after);
    expect(new Set(all).size).toBe(990);
    expect(all).toHaveLength(990);
    expect(fields(listTasks(org.ctx('tomas'), list('ines'), { after: '1.1' }))).toEqual({ after: 'unclear' });
  });
});

describe('a task', () => {
  test('says at the field what is wrong with it', () => {
    const refused = (more: Partial<NewTask>) =>
      fields(addTask(org.ctx('ines'), list('ines'), input({ title: 'x', ...more })));
    expect(refused({ due: on('2027-02-30') })).toEqual({ due: 'due' });
    expect(refused({ due: on('2027-03-28T01:30') })).toEqual({ due: 'clockGap' });
    expect(refused({ due: { at: '2027-03-04', zone: 'Nowhere/At' } })).toEqual({ zone: 'zone' });
    expect(refused({ due: on('3027-03-04') })).toEqual({ due: 'dateBounds' });
    expect(refused({ repeats: 'FREQ=DAILY' })).toEqual({ repeats: 'repeatsWithoutDue' });
    expect(refused({ due: on('2027-03-04'), repeats: 'FREQ=SECONDLY' })).toEqual({ repeats: 'ruleTooOften' });
    expect(refused({ tie: { item: 'nothing', as: 'bring', days: 0 } })).toEqual({ tie: 'itemGone' });
    expect(() => input({ title: '' })).toThrow('titleMissing');
  });

  test('that repeats comes again when it is done, and goes again when that is taken back', () => {
    const first = add('ines', { title: 'Report', due: on('2027-03-05'), repeats: 'FREQ=WEEKLY;COUNT=2' });
    const done = value(change('ines', first, { done: true }));
    expect(tasks('ines').map((task) => [task.due, task.repeats])).toEqual([['2027-03-12', 'FREQ=WEEKLY;COUNT=1']]);
    const entry = trailByKey(org.db, done.undo);
    if (!entry) throw new Error('no entry');
    value(undoTask(org.ctx('ines'), entry));
    expect(tasks('ines').map((task) => task.due)).toEqual(['2027-03-05']);
    const [again] = tasks('ines');
    value(change('ines', again as TaskWire, { done: true }));
    const [last] = tasks('ines');
    value(change('ines', last as TaskWire, { done: true }));
    expect(tasks('ines')).toEqual([]);
    expect(tasks('ines', list('ines'), '1')).toHaveLength(2);
  });

  test('that belongs to an item moves with it, and calls it only what its reader sees of that', () => {
    const item = org.add('ines', 'ines', { title: 'Secret merger', when: at('2027-03-05', 10) });
    const task = add('ines', { title: 'Print the map', tie: { item: item.id, as: 'prepare', days: 1 } });
    expect(task).toMatchObject({
      due: '2027-03-04',
      belongsTo: 'Secret merger',
      tie: { as: 'prepare', days: 1, item: item.id },
    });
    give('tomas', { ...NO_RIGHTS, sight: 'full' });
    expect(tasks('tomas')[0]).toMatchObject({ title: 'Print the map', belongsTo: null, tie: { item: null } });
    value(changeItem(org.ctx('ines'), item.id, { version: 1, scope: 'one', fields: {}, when: at('2027-03-09', 15) }));
    const [moved] = tasks('ines');
    expect(moved).toMatchObject({ due: '2027-03-08', version: 2 });
    // A time of its own takes it off.
    expect(value(change('ines', moved as TaskWire, { due: on('2027-04-01') })).task).toMatchObject({
      due: '2027-04-01',
      tie: null,
    });
  });

  test('of one occurrence of a series follows that one alone, also where all of it moves', () => {
    const second = (title: string): string => {
      const when = at('2027-03-05', 10);
      const key = org.add('ines', 'ines', { title, when, repeat: { rule: 'FREQ=WEEKLY' } }).id.split('~')[0] ?? '';
      return `${key}~${(Date.UTC(2027, 2, 12, 10) / 1000).toString(36)}`;
    };
    const [one, all] = [second('Round'), second('Other round')];
    add('ines', { title: 'For one', tie: { item: one, as: 'bring', days: 0 } });
    add('ines', { title: 'For all', tie: { item: all, as: 'bring', days: 0 } });
    const due = () => Object.fromEntries(tasks('ines').map((task) => [task.title, task.due]));
    expect(due()).toEqual({ 'For one': '2027-03-12', 'For all': '2027-03-12' });
    const moved = { version: 1, fields: {} };
    value(changeItem(org.ctx('ines'), one, { ...moved, scope: 'one', when: at('2027-03-15', 10) }));
    value(changeItem(org.ctx('ines'), all, { ...moved, scope: 'all', when: at('2027-03-13', 9) }));
    expect(due()).toEqual({ 'For one': '2027-03-15', 'For all': '2027-03-13' });
  });

  test('moves for who moves the item without knowing of it: nothing in their trail says so', () => {
    give('tomas', PRESETS.delegate, org.calendar('ines'));
    const item = org.add('ines', 'ines', { title: 'Review', when: at('2027-03-05', 10) });
    add('ines', { title: 'Quietly', tie: { item: item.id, as: 'prepare', days: 1 } });
    value(changeItem(org.ctx('tomas'), item.id, { version: 1, scope: 'one', fields: {}, when: at('2027-03-09', 15) }));
    expect(tasks('ines')[0]?.due).toBe('2027-03-08');
    const own = value(listTrail(org.ctx('tomas'), { of: 'others' }));
    expect(own.entries.map((e) => e.verb)).toEqual(['item.changed']);
  });

  test('below full is removed by the id it is seen under, by whoever made it, and by nobody else', () => {
    give('amara', { ...NO_RIGHTS, sight: 'title', add: true, remove: 'own' });
    value(addTask(org.ctx('amara'), list('ines'), input({ title: 'Mine' })));
    add('ines', { title: 'Hers' });
    const mine = tasks('amara').find((task) => task.title === 'Mine');
    const hers = tasks('amara').find((task) => task.title === 'Hers');
    expect([mine?.mayRemove, hers?.mayRemove]).toEqual([true, undefined]);
    expect(code(removeTask(org.ctx('amara'), hers?.id ?? '', {}))).toBe('notFound');
    value(removeTask(org.ctx('amara'), mine?.id ?? '', {}));
    expect(titles('ines')).toEqual(['Hers']);
  });

  test('changed meanwhile is refused, and says how it stands', () => {
    const task = add('ines', { title: 'Sign' });
    value(change('ines', task, { fields: { title: 'Sign twice' } }));
    const late = change('ines', task, { fields: { title: 'Sign never' } });
    expect(late).toMatchObject({ code: 'changedMeanwhile', data: { title: 'Sign twice' } });
  });
});
