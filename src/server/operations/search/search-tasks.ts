import type { SearchAnswer } from '@/contract/search.ts';
import type { TaskWire } from '@/contract/tasks.ts';
import { SEARCHED_TASK_FIELDS, taskSights } from '@/core/tasks/index.ts';
import { grantsSpeakingTo } from '../../repositories/grants.ts';
import { taskListsById, taskListsOf } from '../../repositories/task-lists.ts';
import { type TaskTexts, tasksHolding } from '../../repositories/tasks.ts';
import { type Context, Directory, decideOnList, TaskReading, taskReaderFor } from '../deciding/index.ts';
import { allWordsOf } from './words.ts';

/** Tasks that are answered, and lists that are looked through. */
const MOST = 20;
const MOST_LISTS = 200;

/** Tasks whose words, as the one who asks sees them, hold every word that is looked for: in their own lists, and in those they were given. */
export function searchTasks(ctx: Context, words: readonly string[]): Pick<SearchAnswer, 'tasks' | 'tasksCut'> {
  const naming = taskListsById(ctx.db, [...grantsSpeakingTo(ctx.db, ctx.viewer.id).keys()]).slice(0, MOST_LISTS);
  const lists = [...taskListsOf(ctx.db, ctx.viewer.id), ...naming.filter((list) => list.ownerId !== ctx.viewer.id)];
  const directory = new Directory(ctx.db);
  const found: SearchAnswer['tasks'][number][] = [];
  for (const list of lists) {
    const on = decideOnList(ctx, list);
    const { sight, change } = on.decision.rights;
    if (sight === 'nothing' || found.length > MOST) continue;
    const reader = taskReaderFor(ctx.viewer.id, on.decision);
    const reading = new TaskReading(ctx, on, directory);
    const seen = new Map<string, TaskWire>();
    // Below full only titles are looked through, and all of what is open to everybody or one's own: what isn't seen takes none of the room.
    const texts: TaskTexts[] =
      sight === 'full'
        ? [{ columns: SEARCHED_TASK_FIELDS }]
        : [
            { columns: SEARCHED_TASK_FIELDS.filter((name) => taskSights[name] === 'title') },
            { columns: SEARCHED_TASK_FIELDS, of: { visibility: 'open' } },
            ...(change === 'none' ? [] : [{ columns: SEARCHED_TASK_FIELDS, of: { createdBy: ctx.viewer.id } }]),
          ];
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
