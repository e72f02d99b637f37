import type { SearchAnswer } from '@/contract/search.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import { SEARCHED_TASK_FIELDS, taskSights } from '@/core/tasks/index.ts';
import { tasksHolding } from '../../repositories/tasks.ts';
import { type Context, listReaderFor, TaskReading } from '../deciding/index.ts';
import { textsSeenOf } from './texts-seen.ts';
import { throughLists } from './through-lists.ts';
import { allWordsOf } from './words.ts';

/** Tasks whose words, as the one who asks sees them, hold every word that is looked for: in their own lists, and in those they were given. */
export function searchTasks(ctx: Context, words: readonly string[]): Pick<SearchAnswer, 'tasks' | 'tasksCut'> {
  const { found, cut } = throughLists(ctx, 'tasks', (on, most, directory) => {
    const reader = listReaderFor(ctx.viewer.id, on.decision);
    const reading = new TaskReading(ctx, on, directory);
    const seen = new Map<string, TaskWire>();
    for (const texts of textsSeenOf(ctx.viewer.id, on.decision, SEARCHED_TASK_FIELDS, taskSights))
      for (const task of tasksHolding(ctx.db, on.list.id, words, texts, reader, most)) {
        const view = reading.view(task);
        if (view && holdsAll(view, words)) seen.set(view.id, view);
      }
    return [...seen.values()].map((task) => ({ of: on.list.first ? null : on.list.name, task }));
  });
  return { tasks: found, tasksCut: cut };
}

/** Whether what is seen of a task holds every word as the beginning of one of its own. */
function holdsAll(view: TaskWire, words: readonly string[]): boolean {
  const own = SEARCHED_TASK_FIELDS.flatMap((name) => view[name] ?? []).flatMap(allWordsOf);
  return words.every((word) => own.some((one) => one.startsWith(word)));
}
