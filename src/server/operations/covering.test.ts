import { afterEach, beforeEach, expect, test } from 'vitest';
import { taskRoutes } from '@/contract/tasks.ts';
import { folderOf, listsOf } from '../repositories/lists.ts';
import type { Result } from '../result.ts';
import { addAbsence, giveCover } from './absences/index.ts';
import { listItems } from './items/list-items.ts';
import { changeMessages } from './messages/change-messages.ts';
import { listFolders } from './messages/folders.ts';
import { listMessages, readThread } from './messages/list-messages.ts';
import { takeMail } from './messages/receive-mail.ts';
import { search } from './search/index.ts';
import { type SmallOrganisation, START, smallOrganisation, WEEK } from './small-organisation.ts';
import { addTask, listTasks } from './tasks/index.ts';
import { listTrail } from './trail/index.ts';

/*
 * Whoever covers for a week: with a calendar, a folder to read and a list of tasks; and what is left when the week is over.
 */
let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
});
afterEach(() => org.close());

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
};
const code = (result: Result<unknown>) => (result.ok ? null : result.code);
const DAY = 86_400_000;

test('a cover of a calendar, a folder and a list works for its week and leaves nothing but the trail', async () => {
  const during = START + 2 * DAY;
  const after = START + 9 * DAY;
  const ines = org.person('ines');
  const arrived = folderOf(org.db, ines.id, 'arrived').key;
  const list = listsOf(org.db, 'tasks', ines.id)[0]?.key ?? '';
  const date = (at: number) => new Date(at).toISOString().slice(0, 10);
  const away = { from: date(START), until: date(START + 7 * DAY), inside: 'Back soon', outside: '', declines: false };
  const set = value(addAbsence(org.ctx('ines'), 'ines', { ...away, cover: 'amara' })).absences[0];
  expect(set?.further.map(({ what, covered }) => [what, covered])).toContainEqual(['arrived', false]);
  const given = value(giveCover(org.ctx('ines'), set?.key ?? '', { further: ['arrived', 'tasks'] })).absences[0];
  expect(given?.covered).toBe(true);
  expect(given?.further.filter(({ covered }) => covered).map(({ what }) => what)).toEqual(['tasks', 'arrived']);
  // Pressed again nothing is given twice.
  value(giveCover(org.ctx('ines'), set?.key ?? '', { further: ['arrived', 'tasks'] }));
  const raw = `From: Marta <marta@quill.example>\r\nTo: ${ines.address}\r\nSubject: The lease\r\nMessage-ID: <1@q.example>\r\n\r\nSigned?`;
  await takeMail(org.db, during, Buffer.from(raw), [ines.address], null);

  const her = org.ctx('amara', during);
  const [thread] = value(listMessages(her, 'ines', { folder: arrived })).threads;
  const mail = thread?.messages[0]?.key ?? '';
  expect(value(readThread(her, mail)).thread.title).toBe('The lease');
  expect(code(changeMessages(her, arrived, { messages: [mail], removed: true }))).toBe('mayNotRemove');
  value(addTask(her, list, taskRoutes.addTask.body.parse({ title: 'Ask Marta' })));
  expect(code(listItems(her, org.calendar('ines'), WEEK))).toBe(null);
  expect(value(search(her, { words: 'lease' })).messages).toHaveLength(1);

  const later = org.ctx('amara', after);
  expect([
    code(listMessages(later, 'ines', { folder: arrived })),
    code(listMessages(later, 'ines', {})),
    code(readThread(later, mail)),
    code(listFolders(later, 'ines', {})),
    code(listTasks(later, list, {})),
  ]).toEqual(Array(5).fill('notFound'));
  expect(value(listFolders(later, 'amara', {})).others).toEqual([]);
  expect(value(search(later, { words: 'lease' })).messages).toEqual([]);
  expect(value(search(later, { words: 'marta' })).tasks).toEqual([]);
  // Free and busy is what everybody in the house is shown of a calendar.
  const board = listItems(later, org.calendar('ines'), WEEK);
  expect(board.ok && board.value.items.every((item) => item.title === undefined)).toBe(true);

  const trail = value(listTrail(org.ctx('ines', after), { of: 'name' })).entries;
  const said = trail.map(({ actor, verb, calendar }) => [actor, verb, calendar]);
  expect(said.filter(([, verb]) => verb !== 'person.added')).toEqual([
    ['Amara', 'task.added', 'Tasks'],
    ['Ines', 'access.given', 'Tasks'],
    ['Ines', 'access.given', 'Arrived'],
    ['Ines', 'access.given', null],
    ['Ines', 'absence.set', null],
    ['Ines', 'item.added', null],
  ]);
});
