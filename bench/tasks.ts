import { taskRoutes } from '../src/contract/tasks.ts';
import { search } from '../src/server/operations/search/index.ts';
import { searchTasks } from '../src/server/operations/search/search-tasks.ts';
import { START, smallOrganisation } from '../src/server/operations/small-organisation.ts';
import { addTask, listTasks } from '../src/server/operations/tasks/index.ts';
import { listsOf } from '../src/server/repositories/lists.ts';
import { openTasks, tasksHolding } from '../src/server/repositories/tasks.ts';
import { line, sideBySide } from './measure.ts';

/* A list of five thousand tasks: listing a page of it, and finding some of it by a word, against the queries alone. */
const MOST = 5000;
const ROUNDS = 30;
const org = smallOrganisation();
const ctx = org.ctx('ines', START);
const list = listsOf(org.db, 'tasks', ctx.viewer.id)[0];
if (!list) throw new Error('no list');
for (let i = 0; i < MOST; i++)
  addTask(
    ctx,
    list.key,
    taskRoutes.addTask.body.parse({
      title: `Task ${i} of the ${['weir', 'heron', 'mill', 'lease'][i % 4]}`,
      notes: `What there is to say of it, ${i}: more than a line, as notes are.`,
      due: i % 3 === 0 ? null : { at: `2027-0${1 + (i % 9)}-1${i % 10}`, zone: 'Europe/Lisbon' },
    }),
  );

const reader = { privateToo: true, own: ctx.viewer.id };
const columns = ['title', 'notes', 'link', 'categories'];
const { page, query, alone, find, raw } = sideBySide(ROUNDS, {
  page: () => JSON.stringify(listTasks(ctx, list.key, {})),
  query: () => JSON.stringify(openTasks(org.db, list.id, reader, null, 301)),
  alone: () => JSON.stringify(searchTasks(ctx, ['heron', '11'])),
  find: () => JSON.stringify(search(ctx, { words: 'heron 11', everywhere: '1' })),
  raw: () => JSON.stringify(tasksHolding(org.db, [list.id], ['heron', '11'], { columns }, reader, 21)),
});
console.log(line('a page of 300 tasks of 5,000; floor: the rows', page, query));
console.log(line('two words, that kind alone, in 5,000 tasks; floor: the rows that hold them', alone, raw));
console.log(line('two words, with all other kinds, in 5,000 tasks; floor: the rows that hold them', find, raw));
org.close();
