import type { SearchAnswer } from '@/contract/search.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import { SEARCHED_TASK_FIELDS, taskSights } from '@/core/tasks/index.ts';
import { listsOf } from '../../repositories/lists.ts';
import { tasksHolding } from '../../repositories/tasks.ts';
import { type Context, Directory, decideOnList, listReaderFor, TaskReading } from '../deciding/index.ts';
import { sharedWith } from '../lists/index.ts';
import { textsSeenOf } from './texts-seen.ts';
import { allWordsOf } from './words.ts';

/** Tasks that are answered, and lists that are looked through. */
const MOST = 20;
const MOST_LISTS = 200;

/** Tasks whose words, as the one who asks sees them, hold every word that is looked for: in their own lists, and in those they were given. */
export function searchTasks(ctx: Context, words: readonly string[]): Pick<SearchAnswer, 'tasks' | 'tasksCut'> {
  const lists = [...listsOf(ctx.db, 'tasks', ctx.viewer.id), ...sharedWith(ctx, 'tasks').slice(0, MOST_LISTS)];
  const directory = new Directory(ctx.db);
  const found: SearchAnswer['tasks'][number][] = [];
  for (const list of lists) {
    const on = decideOnList(ctx, list);
    if (on.decision.rights.sight === 'nothing' || found.length > MOST) continue;
    const reader = listReaderFor(ctx.viewer.id, on.decision);
    const reading = new TaskReading(ctx, on, directory);
    const seen = new Map<string, TaskWire>();
    const texts = textsSeenOf(ctx.viewer.id, on.decision, SEARCHED_TASK_FIELDS, taskSights);
    for (const one of texts)
      for (const task of tasksHolding(ctx.db, list.id, words, one, reader, MOST + 1)) {
        const view = reading.view(task);
        if (view && holdsAll(view, words)) seen.set(view.id, view);
      }
    const { handle = '', name = '', colour = 0 } = directory.person(list.ownerId) ?? {};
    for (const task of seen.values())
      found.push({ owner: { handle, name, colour: colour % 6 }, of: list.first ? null : list.name, task });
  }
  return { tasks: found.slice(0, MOST), tasksCut: found.length > MOST };
}

/** Whether what is seen of a task holds every word as the beginning of one of its own. */
function holdsAll(view: TaskWire, words: readonly string[]): boolean {
  const own = SEARCHED_TASK_FIELDS.flatMap((name) => view[name] ?? []).flatMap(allWordsOf);
  return words.every((word) => own.some((one) => one.startsWith(word)));
}
