import { type NewTask, taskRoutes } from '../src/contract/tasks.ts';
import { NO_RIGHTS, type Rights } from '../src/core/access/index.ts';
import { dateText } from '../src/core/time/index.ts';
import type { Context } from '../src/server/operations/deciding/context/context.ts';
import { listItems } from '../src/server/operations/items/list-items.ts';
import { addList } from '../src/server/operations/lists/index.ts';
import { giveAccess } from '../src/server/operations/sharing/give-access.ts';
import { addTask, changeTask, listTaskLists } from '../src/server/operations/tasks/index.ts';
import type { Result } from '../src/server/result.ts';

const DAY = 86_400_000;
const ZONE = 'Europe/Lisbon';
/** Looks after the list of somebody else: reads all but what is private, adds, changes and removes. */
const KEEPS: Rights = { ...NO_RIGHTS, sight: 'full', add: true, change: 'all', remove: 'all' };

function value<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
}

/** What the people of the sample have to do: hers, which Tomas looks after, a notebook of hers, and his own. */
export function sampleTasks(ctx: (handle: string) => Context, monday: number, calendar: string): void {
  const list = (handle: string): string => value(listTaskLists(ctx(handle), handle)).lists[0]?.key ?? '';
  const add = (by: string, to: string, task: Partial<NewTask> & { title: string }) =>
    value(addTask(ctx(by), to, taskRoutes.addTask.body.parse(task))).task;
  const on = (day: number, at?: string): NewTask['due'] => ({
    at: dateText(monday + day * DAY) + (at ? `T${at}` : ''),
    zone: ZONE,
  });
  const give = (owner: string, of: string, to: string, rights: Rights) =>
    value(giveAccess(ctx(owner), of, { audience: { kind: 'person', id: to }, rights, seen: null, tell: { note: '' } }));
  const hers = list('ines');
  give('ines', hers, 'tomas', KEEPS);
  give('ines', hers, 'amara', { ...NO_RIGHTS, sight: 'title' });
  const week = { from: dateText(monday), to: dateText(monday + 12 * DAY), zone: ZONE };
  const { items } = value(listItems(ctx('ines'), calendar, week));
  const tied = (title: string, as: 'prepare' | 'bring' | 'followUp', days: number): Partial<NewTask> => {
    const item = items.find((one) => one.title?.includes(title));
    return item ? { tie: { item: item.id, as, days } } : {};
  };
  add('ines', hers, { title: 'Read the weir report before the ministry does', due: on(0), importance: 'high' });
  add('tomas', hers, {
    title: 'Sign the lease of the Seed Store',
    due: on(1, '16:00'),
    notes: 'Two copies, both on the blue tray.',
  });
  add('tomas', hers, { title: 'Print the catchment map, A1', ...tied('Audit', 'prepare', 1) });
  add('tomas', hers, { title: 'Send Bruno what she wants moved', ...tied('Field budgets', 'followUp', 1) });
  add('ines', hers, { title: 'Half-year talk with Wren: what to ask', due: on(3), visibility: 'private' });
  add('tomas', hers, {
    title: 'Report to the trustees',
    due: on(4),
    repeats: 'FREQ=MONTHLY',
    categories: ['Trustees'],
  });
  add('ines', hers, { title: 'Choose the cover of the yearbook', due: on(9) });
  add('ines', hers, { title: 'Find a name for the new hide' });
  const call = add('ines', hers, {
    title: 'Ask the mill for its old flood marks',
    due: on(3),
    notes: 'They wrote them on the door frame.',
  });
  if (call) value(changeTask(ctx('ines'), call.id, taskRoutes.changeTask.body.parse({ version: 1, give: 'bruno' })));
  const done = add('tomas', hers, { title: 'Renew the fishing permit', due: on(-1) });
  if (done) value(changeTask(ctx('tomas'), done.id, taskRoutes.changeTask.body.parse({ version: 1, done: true })));
  const notes = value(addList(ctx('ines'), 'tasks', 'ines', { name: 'Notebook' })).list;
  add('ines', notes, {
    title: 'Words for the opening of the hide',
    notes: 'Who first saw the bittern here; nobody wrote it down but the miller.',
  });
  add('ines', notes, { title: 'Books lent out', notes: 'Hedda: the peat atlas.\nBruno: the river diaries.' });
  const his = list('tomas');
  add('tomas', his, { title: 'Order new name cards', due: on(2) });
  add('tomas', his, { title: 'Leave a list for Oona', due: on(11), ...{ importance: 'high' as const } });
}
