import type { SearchAnswer } from '@/contract/search.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import { SEARCHED_TASK_FIELDS, taskSights } from '@/core/tasks/index.ts';
import { tasksHolding } from '../../repositories/tasks.ts';
import { type Context, listReaderFor, TaskReading } from '../deciding/index.ts';
import { textsSeenOf } from './texts-seen.ts';
import { inList, type SeenList, throughLists } from './through-lists.ts';
import { allWordsOf } from './words.ts';

type Found = Omit<SearchAnswer['tasks'][number], 'owner'>;

/** Tasks whose words, as the viewer sees them, hold every word that is looked for: in their own lists, and in those they were given. */
export function searchTasks(ctx: Context, words: readonly string[]): Pick<SearchAnswer, 'tasks' | 'tasksCut'> {
  const { found, cut } = throughLists(ctx, 'tasks', (alike, most, directory) => {
    const [{ decision }] = alike;
    const reader = listReaderFor(ctx.viewer.id, decision);
    const lists = alike.map(({ list }) => list.id);
    const seen = new Map<string, readonly [SeenList<'tasks'>, Found]>();
    for (const texts of textsSeenOf(ctx.viewer.id, decision, SEARCHED_TASK_FIELDS, taskSights))
      for (const task of tasksHolding(ctx.db, lists, words, texts, reader, most)) {
        const on = inList(alike, task.listId);
        const view = new TaskReading(ctx, on, directory).view(task);
        if (view && holdsAll(view, words))
          seen.set(view.id, [on, { of: on.list.first ? null : on.list.name, task: view }]);
      }
    return [...seen.values()];
  });
  return { tasks: found, tasksCut: cut };
}

/** Whether what is seen of a task holds every word as the beginning of one of its own. */
function holdsAll(view: TaskWire, words: readonly string[]): boolean {
  const own = SEARCHED_TASK_FIELDS.flatMap((name) => view[name] ?? []).flatMap(allWordsOf);
  return words.every((word) => own.some((one) => one.startsWith(word)));
}
