import { describe, expect, test, vi } from 'vitest';
import type { NewItem } from '@/contract/items/items.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import { NO_RIGHTS, PRESETS } from '@/core/access/index.ts';
import { hub } from '../../live/hub.ts';
import { trailByKey } from '../../repositories/trail.ts';
import { everythingTold } from '../deciding/index.ts';
import { listItems } from '../items/index.ts';
import { addList } from '../lists/index.ts';
import { search } from '../search/search.ts';
import { giveAccess } from '../sharing/index.ts';
import { at, WEEK } from '../small-organisation.ts';
import { changeTask, exportTasks, importTasks, removeTask, setTaskTime, undoTask } from './index.ts';
import { add, change, code, eachTaskDay, fields, give, list, on, org, tasks, titles, value } from './task-day.ts';

eachTaskDay();

test('a task is given time in its owner’s calendar by the rights one has there, and is a task again', () => {
  const time = (by: string, task: TaskWire, when: NewItem['when'] | null, calendar: string | null = null) =>
    setTaskTime(org.ctx(by), task.id, { version: task.version ?? 0, calendar, when });
  const items = (by = 'ines') => {
    const read = value(listItems(org.ctx(by), org.calendar('ines'), WEEK));
    return read.items.map((item) => [item.title, item.kind, item.visibility, item.start.slice(11, 16)]);
  };
  const task = add('ines', { title: 'Read the report', visibility: 'private' });
  const timed = value(time('ines', task, at('2027-03-04', 10))).task as TaskWire;
  expect(timed.time).toMatchObject({ start: '2027-03-04T10:00:00Z', end: '2027-03-04T11:00:00Z' });
  expect(items()).toEqual([['Read the report', 'focus', 'private', '10:00']]);
  const moved = value(time('ines', timed, at('2027-03-04', 15))).task as TaskWire;
  expect(items()).toEqual([['Read the report', 'focus', 'private', '15:00']]);
  const again = value(time('ines', moved, null)).task as TaskWire;
  expect([again.time, items()]).toEqual([null, []]);
  expect(fields(time('ines', again, at('2027-03-04', 10), org.calendar('bruno')))).toEqual({
    calendar: 'otherCalendar',
  });
  // Whoever keeps the list and may not add to the calendar sets none aside, and nothing of it is written.
  give('tomas', { ...NO_RIGHTS, sight: 'full', change: 'all', add: true, remove: 'all' });
  const plain = add('ines', { title: 'Sign' });
  expect(code(time('tomas', plain, at('2027-03-04', 10)))).toBe('mayNotAdd');
  expect([tasks('ines').find(({ title }) => title === 'Sign')?.version, items()]).toEqual([1, []]);
  org.give('ines', 'tomas', PRESETS.delegate);
  value(time('tomas', plain, at('2027-03-05', 9)));
  expect(items('tomas')).toEqual([['Sign', 'focus', 'follow', '09:00']]);
});

test('a link and somebody outside are given no list', () => {
  const body = (audience: Parameters<typeof giveAccess>[2]['audience']) => ({
    audience,
    rights: { ...NO_RIGHTS, sight: 'title' as const },
    seen: null,
  });
  expect(fields(giveAccess(org.ctx('ines'), list('ines'), body({ kind: 'newLink', name: 'x' })))).toEqual({
    audience: 'linkCalendarOnly',
  });
  expect(
    fields(giveAccess(org.ctx('ines'), list('ines'), body({ kind: 'address', address: 'marta@quill.example' }))),
  ).toEqual({ audience: 'listInside' });
});

describe('a search', () => {
  const found = (by: string, words: string) => {
    const read = value(search(org.ctx(by), { words, everywhere: '1' }));
    return read.tasks.map(({ owner, task }) => `${owner.handle}: ${task.title}`);
  };
  test('finds tasks by the words one sees of them, in one’s own lists and those one was given, and by no others', () => {
    add('ines', { title: 'Sign the léase', notes: 'In blue ink' });
    add('ines', { title: 'Doctor', notes: 'blue', visibility: 'private' });
    add('ines', { title: 'Open door', notes: 'blue', visibility: 'open' });
    give('tomas', { ...NO_RIGHTS, sight: 'full' });
    give('amara', { ...NO_RIGHTS, sight: 'title' });
    expect(found('ines', 'blue').sort()).toEqual(['ines: Doctor', 'ines: Open door', 'ines: Sign the léase']);
    expect(found('tomas', 'blue ink')).toEqual(['ines: Sign the léase']);
    expect(found('tomas', 'doctor')).toEqual([]);
    expect(found('amara', 'lease')).toEqual(['ines: Sign the léase']);
    // What is open to everybody who sees the list is found by all of it, the rest by its title alone.
    expect(found('amara', 'blue')).toEqual(['ines: Open door']);
    expect(found('bruno', 'lease')).toEqual([]);
  });
  test('finds what is done last, and what was removed not at all', () => {
    const done = add('ines', { title: 'Heron one' });
    add('ines', { title: 'Heron two' });
    const gone = add('ines', { title: 'Heron three' });
    value(change('ines', done, { done: true }));
    value(removeTask(org.ctx('ines'), gone.id, { version: 1 }));
    expect(found('ines', 'her')).toEqual(['ines: Heron two', 'ines: Heron one']);
  });
});

describe('a list as a file', () => {
  const text = (by: string) => value(exportTasks(org.ctx(by), list('ines'))).text;
  test('is whole for its owner and whoever may have all of it, and brought in elsewhere it is the same', () => {
    add('ines', { title: 'Sign', due: on('2027-03-04'), visibility: 'private', categories: ['Lease'] });
    add('ines', { title: 'Report', due: on('2027-03-05T10:00'), repeats: 'FREQ=MONTHLY' });
    give('tomas', { ...NO_RIGHTS, sight: 'full', change: 'all', add: true, remove: 'all' });
    expect(code(exportTasks(org.ctx('tomas'), list('ines')))).toBe('mayNotImport');
    expect(code(exportTasks(org.ctx('bruno'), list('ines')))).toBe('notFound');
    const file = text('ines');
    expect(value(importTasks(org.ctx('ines'), list('ines'), file))).toMatchObject({ added: 0, changed: 0, same: 2 });
    const done = value(importTasks(org.ctx('bruno'), list('bruno'), file));
    expect(done).toMatchObject({ added: 2, changed: 0, same: 0, problems: [] });
    const bare = (task: TaskWire) => [task.title, task.due, task.repeats, task.visibility, task.categories];
    expect(tasks('bruno', list('bruno')).map(bare)).toEqual(tasks('ines').map(bare));
    const entry = trailByKey(org.db, done.undo);
    if (!entry) throw new Error('no entry');
    value(undoTask(org.ctx('bruno'), entry));
    expect(tasks('bruno', list('bruno'))).toEqual([]);
  });
  test('twice in one house: what is removed and brought in again stays removed, and what goes into the other list goes', () => {
    const task = add('ines', { title: 'Sign' });
    const file = text('ines');
    const gone = value(removeTask(org.ctx('ines'), task.id, { version: 1 }));
    value(importTasks(org.ctx('ines'), list('ines'), file));
    const entry = trailByKey(org.db, gone.undo);
    expect(code(undoTask(org.ctx('ines'), entry as never))).toBe('changedMeanwhile');
    const { list: other } = value(addList(org.ctx('ines'), 'tasks', 'ines', { name: 'Calls' }));
    value(importTasks(org.ctx('ines'), other, file));
    const [again] = tasks('ines');
    value(changeTask(org.ctx('ines'), again?.id ?? '', { version: again?.version ?? 0, fields: {}, list: other }));
    expect(tasks('ines', other).map(({ title }) => title)).toEqual(['Sign', 'Sign']);
  });
  test('changes what is there, says what it couldn’t read, and nothing of what others gave', () => {
    const task = add('ines', { title: 'Sign' });
    value(change('ines', task, { give: 'bruno' }));
    const theirs = value(exportTasks(org.ctx('bruno'), list('bruno'))).text;
    const other = theirs.replace('SUMMARY:Sign', 'SUMMARY:Something else');
    expect(value(importTasks(org.ctx('bruno'), list('bruno'), other))).toMatchObject({ changed: 0 });
    const hers = text('ines').replace('SUMMARY:Sign', 'SUMMARY:Sign twice');
    const broken = hers.replace('END:VCALENDAR', 'BEGIN:VTODO\r\nUID:x\r\nDUE:nonsense\r\nEND:VTODO\r\nEND:VCALENDAR');
    const done = value(importTasks(org.ctx('ines'), list('ines'), broken));
    expect(done).toMatchObject({ added: 0, changed: 1, left: 1 });
    expect(titles('ines')).toEqual(['Sign twice']);
    expect(titles('bruno', list('bruno'))).toEqual(['Sign twice']);
    expect(code(importTasks(org.ctx('ines'), list('ines'), 'no calendar'))).toBe('notACalendar');
  });
});

test('a change is told to the windows of those who see it, and to nobody else', async () => {
  give('tomas', { ...NO_RIGHTS, sight: 'full' });
  give('amara', { ...NO_RIGHTS, sight: 'title' });
  // She is told last: once she has heard of it everybody has who does.
  const heard: Record<string, string[]> = { tomas: [], amara: [], bruno: [], ines: [] };
  for (const [handle, told] of Object.entries(heard))
    hub().join(org.person(handle).id, {
      session: null,
      send: (text) => void (text.includes('"tasks"') && told.push(text)),
      close: () => {},
    });
  const all = async () => {
    await everythingTold();
    // What is told is gathered for a moment.
    await vi.waitFor(() => expect(heard.ines?.length).toBeGreaterThan(0));
    const who = Object.entries(heard).flatMap(([handle, told]) => (told.splice(0).length > 0 ? [handle] : []));
    return who;
  };
  const quiet = add('ines', { title: 'Doctor', visibility: 'private' });
  expect(await all()).toEqual(['ines']);
  const plain = add('ines', { title: 'Sign' });
  expect(await all()).toEqual(['tomas', 'amara', 'ines']);
  value(change('ines', plain, { fields: { notes: 'In blue' } }));
  expect(await all()).toEqual(['tomas', 'ines']);
  value(change('ines', quiet, { done: true }));
  expect(await all()).toEqual(['ines']);
});
