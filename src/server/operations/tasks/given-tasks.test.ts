import { describe, expect, test } from 'vitest';
import type { TaskWire } from '@/contract/tasks.ts';
import { NO_RIGHTS } from '@/core/access/index.ts';
import { addList } from '../lists/index.ts';
import { giveAccess } from '../sharing/index.ts';
import { answerTask, listTasks } from './index.ts';
import { add, change, code, eachTaskDay, fields, list, on, org, tasks, titles, value } from './task-day.ts';

eachTaskDay();

describe('a task that is given to somebody', () => {
  const bruno = () => tasks('bruno', list('bruno'));
  test('is theirs to answer, in their own list; what is done is done on both sides', () => {
    const task = add('ines', { title: 'Call Marta', notes: 'Of the audit', due: on('2027-03-04') });
    const given = value(change('ines', task, { give: 'bruno' })).task as TaskWire;
    expect(given.given).toMatchObject({ to: { handle: 'bruno' }, state: 'asked' });
    expect(bruno()).toMatchObject([
      { title: 'Call Marta', notes: 'Of the audit', from: { by: 'Ines', for: 'Ines', said: 'asked' } },
    ]);
    // Of the list it came from they see nothing.
    expect(code(listTasks(org.ctx('bruno'), list('ines'), {}))).toBe('notFound');
    value(answerTask(org.ctx('bruno'), bruno()[0]?.id ?? '', { yes: true, note: '' }));
    const [theirs] = bruno();
    expect(code(change('bruno', theirs as TaskWire, { fields: { title: 'No' } }))).toBe('taskOfGiver');
    value(change('bruno', theirs as TaskWire, { done: true }));
    expect(tasks('ines', list('ines'), '1').map((one) => one.title)).toEqual(['Call Marta']);
  });

  test('stays theirs where it goes into another list, with what was typed in the same act', () => {
    const task = add('ines', { title: 'Call Marta' });
    const given = value(change('ines', task, { give: 'bruno' })).task as TaskWire;
    const { list: other } = value(addList(org.ctx('ines'), 'tasks', 'ines', { name: 'Calls' }));
    // What can’t be written moves nothing either.
    expect(code(change('ines', given, { list: other, repeats: 'FREQ=DAILY' }))).toBe('badInput');
    expect(titles('ines')).toEqual(['Call Marta']);
    value(change('ines', given, { list: other, fields: { title: 'Call Marta Quill' } }));
    expect([titles('ines'), titles('ines', other)]).toEqual([[], ['Call Marta Quill']]);
    const [theirs] = tasks('bruno', list('bruno'));
    value(answerTask(org.ctx('bruno'), theirs?.id ?? '', { yes: true, note: '' }));
    const [taken] = tasks('bruno', list('bruno'));
    value(change('bruno', taken as TaskWire, { done: true }));
    expect(tasks('ines', other, '1')).toMatchObject([
      { title: 'Call Marta Quill', done: true, given: { state: 'yes' } },
    ]);
  });

  test('follows what it was given of, and goes when that is taken back', () => {
    const task = add('ines', { title: 'Call Marta' });
    const given = value(change('ines', task, { give: 'bruno' })).task as TaskWire;
    const moved = value(change('ines', given, { fields: { title: 'Call Marta Quill' }, due: on('2027-03-05') }));
    expect(bruno()).toMatchObject([{ title: 'Call Marta Quill', due: '2027-03-05' }]);
    value(change('ines', moved.task as TaskWire, { give: null }));
    expect(bruno()).toEqual([]);
  });

  test('that somebody says no to is its owner’s again, with what they said', () => {
    const task = add('ines', { title: 'Call Marta' });
    value(change('ines', task, { give: 'bruno' }));
    value(answerTask(org.ctx('bruno'), bruno()[0]?.id ?? '', { yes: false, note: 'Ask Dario' }));
    expect(bruno()).toEqual([]);
    expect(tasks('ines')[0]?.given).toEqual({ to: { handle: 'bruno', name: 'Bruno' }, state: 'no', note: 'Ask Dario' });
    expect(fields(change('ines', tasks('ines')[0] as TaskWire, { give: 'ines' }))).toEqual({ give: 'person' });
  });

  test('is answered by whoever may change their tasks, and not by the giver', () => {
    const task = add('ines', { title: 'Call Marta' });
    value(change('ines', task, { give: 'bruno' }));
    const id = bruno()[0]?.id ?? '';
    expect(code(answerTask(org.ctx('ines'), id, { yes: true, note: '' }))).toBe('notFound');
    value(
      giveAccess(org.ctx('bruno'), list('bruno'), {
        audience: { kind: 'person', id: 'dario' },
        rights: { ...NO_RIGHTS, sight: 'full', change: 'all' },
        seen: null,
      }),
    );
    value(answerTask(org.ctx('dario'), id, { yes: true, note: '' }));
    expect(tasks('ines')[0]?.given?.state).toBe('yes');
    expect(code(answerTask(org.ctx('bruno'), id, { yes: false, note: '' }))).toBe('taskNotAsked');
  });
});
