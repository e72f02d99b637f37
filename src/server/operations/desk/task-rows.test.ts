import { expect, test } from 'vitest';
import { type NewTask, taskRoutes } from '@/contract/tasks.ts';
import { NO_RIGHTS, type Rights } from '@/core/access/index.ts';
import { listsOf } from '../../repositories/lists.ts';
import { trailByKey } from '../../repositories/trail.ts';
import { ctx, eachMeetingDay, org, value } from '../meetings/meeting-day.ts';
import { giveAccess } from '../sharing/index.ts';
import { addTask, answerTask, changeTask, listTasks, undoTask } from '../tasks/index.ts';
import { desk, kinds, row, rows, take } from './at-desk.ts';

eachMeetingDay();

const list = (handle: string): string => listsOf(org.db, 'tasks', org.person(handle).id)[0]?.key ?? '';
const add = (title: string, due: string, more: Partial<NewTask> = {}, of = 'ines') =>
  value(
    addTask(
      ctx(of),
      list(of),
      taskRoutes.addTask.body.parse({ title, due: { at: due, zone: 'Europe/Lisbon' }, ...more }),
    ),
  ).task;
const give = (to: string, rights: Rights) =>
  value(giveAccess(ctx('ines'), list('ines'), { audience: { kind: 'person', id: to }, rights, seen: null }));
const KEEPS: Rights = { ...NO_RIGHTS, sight: 'full', add: true, change: 'all', remove: 'all' };
const titles = (handle: string) => rows(handle, 'task').map(({ about }) => (about?.of === 'task' ? about.title : ''));

// Tuesday, 2 March 2027, nine in the morning: the working day after the next ends with Thursday.
test('what is due before the working day after the next ends is a row, for whoever may say that it is done', () => {
  add('Overdue', '2027-02-26');
  add('Soon', '2027-03-03');
  add('Later', '2027-03-12');
  expect(titles('ines')).toEqual(['Overdue', 'Soon']);
  expect(kinds('tomas')).not.toContain('task');
  give('tomas', { ...NO_RIGHTS, sight: 'full' });
  expect(kinds('tomas')).not.toContain('task');
});

test('what is private is no row of whoever keeps the list, and counts nowhere', () => {
  give('tomas', KEEPS);
  add('Quiet', '2027-03-02', { visibility: 'private' });
  add('Plain', '2027-03-02');
  expect(titles('tomas')).toEqual(['Plain']);
  expect(desk('tomas').principals.find(({ handle }) => handle === 'ines')?.rows).toBe(1);
  expect(titles('ines').sort()).toEqual(['Plain', 'Quiet']);
});

test('is done or put to tomorrow by one step each, said in its owner’s name, and taken back', () => {
  give('tomas', KEEPS);
  add('Sign', '2027-03-01');
  expect(row('tomas', 'task').steps.map(({ act }) => act)).toEqual(['done', 'tomorrow']);
  const moved = value(take('tomas', row('tomas', 'task').key, { act: 'tomorrow' }));
  const tasks = () => value(listTasks(ctx('ines'), list('ines'), {})).tasks;
  expect(tasks()).toMatchObject([{ due: '2027-03-03', changed: { actor: 'Tomas', principal: 'Ines' } }]);
  const entry = trailByKey(org.db, moved.undo ?? '');
  if (!entry) throw new Error('nothing to undo');
  value(undoTask(ctx('tomas'), entry));
  expect(tasks()).toMatchObject([{ due: '2027-03-01' }]);
  const { key } = row('tomas', 'task');
  value(take('tomas', key, { act: 'done' }));
  expect(tasks()).toEqual([]);
  expect(take('ines', key, { act: 'done' })).toMatchObject({ code: 'deskDecided', facts: { name: 'Tomas' } });
});

test('that somebody else does is theirs from their yes on, and no row of whose it was', () => {
  const task = add('Call the mill', '2027-03-02');
  const patch = taskRoutes.changeTask.body.parse({ version: 1, give: 'bruno' });
  value(changeTask(ctx('ines'), task?.id ?? '', patch));
  expect([titles('ines'), titles('bruno')]).toEqual([['Call the mill'], []]);
  const [theirs] = value(listTasks(ctx('bruno'), list('bruno'), {})).tasks;
  value(answerTask(ctx('bruno'), theirs?.id ?? '', { yes: true, note: '' }));
  expect([titles('ines'), titles('bruno')]).toEqual([[], ['Call the mill']]);
});
