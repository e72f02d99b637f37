import { afterEach, beforeEach } from 'vitest';
import { type NewTask, type TaskPatch, type TaskWire, taskRoutes } from '@/contract/tasks.ts';
import type { Rights } from '@/core/access/index.ts';
import { listsOf } from '../../repositories/lists.ts';
import type { Result } from '../../result.ts';
import { giveAccess } from '../sharing/index.ts';
import { type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { addTask, changeTask, listTasks } from './index.ts';

/*
 * For tests: a small organisation as people meet its tasks.
 */
export let org: SmallOrganisation;
/** Makes it anew before each test of the file that calls this. */
export function eachTaskDay(): void {
  beforeEach(() => {
    org = smallOrganisation();
  });
  afterEach(() => org.close());
}

export const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
};
export const code = (result: Result<unknown>) => (result.ok ? null : result.code);
export const fields = (result: Result<unknown>) => (result.ok ? null : result.fields);
export const list = (handle: string, nth = 0): string =>
  listsOf(org.db, 'tasks', org.person(handle).id)[nth]?.key ?? '';
export const give = (to: string, rights: Rights, of = list('ines')) =>
  value(giveAccess(org.ctx('ines'), of, { audience: { kind: 'person', id: to }, rights, seen: null }));
export const input = (more: Partial<NewTask> & { title: string }): NewTask => taskRoutes.addTask.body.parse(more);
export const add = (by: string, more: Partial<NewTask> & { title: string }, to = list('ines')): TaskWire =>
  value(addTask(org.ctx(by), to, input(more))).task as TaskWire;
const patch = (more: Partial<TaskPatch> & { version: number }): TaskPatch => taskRoutes.changeTask.body.parse(more);
export const change = (by: string, task: TaskWire, more: Partial<TaskPatch>) =>
  changeTask(org.ctx(by), task.id, patch({ version: task.version ?? 0, ...more }));
export const tasks = (by: string, of = list('ines'), done?: '1') => value(listTasks(org.ctx(by), of, { done })).tasks;
export const titles = (by: string, of?: string) => tasks(by, of).map((task) => task.title);
export const on = (day: string): NewTask['due'] => ({ at: day, zone: 'Europe/Lisbon' });
