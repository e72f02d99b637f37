import { beforeEach, expect, test } from 'vitest';
import { type NewTask, taskRoutes } from '@/contract/tasks.ts';
import { NO_RIGHTS, type Rights } from '@/core/access/index.ts';
import type { TextMatch } from '@/core/formats/index.ts';
import { listsOf } from '../../repositories/lists.ts';
import type { Result } from '../../result.ts';
import type { Context } from '../deciding/index.ts';
import { giveAccess } from '../sharing/index.ts';
import { addTask, changeTask, listTasks } from '../tasks/index.ts';
import { listProgramCalendars, readProgramCalendar, readProgramPerson } from './calendars.ts';
import { queryFreeBusy } from './free-busy.ts';
import { listObjects, readObject } from './objects.ts';
import { eachProgramDay, edit, lines, NONE, org } from './program-day.ts';
import type { ObjectsWanted } from './program-object.ts';
import { deleteObject, putObject } from './write-object.ts';

eachProgramDay();

const LISBON = 'Europe/Lisbon';
const KEEPS: Rights = { ...NO_RIGHTS, sight: 'full', add: true, change: 'all', remove: 'all' };
let list = '';

function value<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
}
const add = (title: string, more: Partial<NewTask> = {}) =>
  value(addTask(org.ctx('ines'), list, taskRoutes.addTask.body.parse({ title, ...more }))).task;
const give = (to: string, rights: Rights) =>
  value(giveAccess(org.ctx('ines'), list, { audience: { kind: 'person', id: to }, rights, seen: null }));
const objects = (who: string | Context, wanted: Partial<ObjectsWanted> = {}) => {
  const read = listObjects(typeof who === 'string' ? org.ctx(who) : who, list, { texts: true, ...wanted });
  return read.ok ? read.value.objects : read.code;
};
const all = (who: string, wanted: Partial<ObjectsWanted> = {}) => {
  const read = objects(who, wanted);
  return typeof read === 'string' ? read : read.map(({ text }) => text).join('\n');
};
const one = (who: string, title: string) => {
  const read = objects(who);
  const found = typeof read === 'string' ? undefined : read.find(({ text }) => text?.includes(title));
  if (!found?.text) throw new Error(`${who} has no ${title}`);
  return { ...found, text: found.text };
};
const put = (who: string, name: string, text: string, seen = NONE) => putObject(org.ctx(who), list, name, text, seen);
const open = () => value(listTasks(org.ctx('ines'), list, {})).tasks;
const todo = (...inside: string[]): string => lines('BEGIN:VTODO', 'DTSTAMP:20270302T090000Z', ...inside, 'END:VTODO');

beforeEach(() => {
  list = listsOf(org.db, 'tasks', org.person('ines').id)[0]?.key ?? '';
  add('Sign the lease', {
    notes: 'Both copies',
    due: { at: '2027-03-03T16:00:00', zone: LISBON },
    categories: ['Seed Store'],
  });
  add('Half-year talk', { visibility: 'private', due: { at: '2027-03-04', zone: LISBON } });
  add('Water the ferns', { due: { at: '2027-03-01', zone: LISBON }, repeats: 'FREQ=WEEKLY;COUNT=3' });
});

test('a list is to each what the screen shows them, and no byte more', () => {
  give('amara', { ...NO_RIGHTS, sight: 'outline' });
  give('bruno', { ...NO_RIGHTS, sight: 'full' });
  give('tomas', KEEPS);
  expect(all('ines')).toContain('Half-year talk');
  expect(all('tomas')).toContain('Both copies');
  expect(all('tomas')).toContain('DUE;TZID=Europe/Lisbon:20270303T160000');
  expect(all('bruno')).toContain('Both copies');
  expect(all('amara')).toContain('Sign the lease');
  expect(all('amara')).not.toContain('Both copies');
  const [theirs, hers] = [one('amara', 'Sign the lease'), one('ines', 'Sign the lease')];
  expect(theirs.text).not.toContain(hers.name.replace('.ics', ''));
  expect(readObject(org.ctx('amara'), list, theirs.name)).toMatchObject({ ok: true, value: { tag: theirs.tag } });
  expect(readObject(org.ctx('amara'), list, hers.name)).toMatchObject({ ok: false, code: 'notFound' });
  for (const who of ['amara', 'bruno', 'tomas']) {
    expect(all(who)).not.toContain('Half-year');
    expect(readObject(org.ctx(who), list, one('ines', 'Half-year').name)).toMatchObject({ code: 'notFound' });
    expect([objects(who)].flat()).toHaveLength(2);
  }
  // To whoever sees nothing of it there is no such list, nor such a person.
  expect([objects('wren'), objects('wren', { names: ['x.ics'] })]).toEqual(['notFound', 'notFound']);
  expect(readProgramCalendar(org.ctx('wren'), list)).toMatchObject({ code: 'notFound' });
  expect(put('wren', 'x.ics', todo('UID:x', 'SUMMARY:X'))).toMatchObject({ code: 'notFound' });
});

test('lists are found beside the calendars, one’s own and those given, and tell nothing of free time', () => {
  const of = (who: string) =>
    listProgramCalendars(org.ctx(who))
      .calendars.filter(({ holds }) => holds === 'VTODO')
      .map(({ name }) => name);
  expect(of('tomas')).toEqual(['Tasks']);
  give('tomas', KEEPS);
  expect(of('tomas')).toEqual(['Tasks', 'Ines, Tasks']);
  expect(queryFreeBusy(org.ctx('ines'), list, { from: 0, to: 1 })).toMatchObject({ code: 'notFound' });
  expect(readProgramPerson(org.ctx('tomas'), 'ines').ok).toBe(true);
  const id = org.db.get<{ id: number }>('SELECT id FROM collection WHERE key = ?', org.calendar('tomas'))?.id ?? 0;
  const narrow = { ...org.ctx('tomas'), token: { key: 'k', only: id } };
  expect(objects(narrow)).toBe('notFound');
  expect(listProgramCalendars(narrow).calendars.map(({ key }) => key)).toEqual([org.calendar('tomas')]);
});

test('what a program adds is a task as if typed, in its owner’s name, under the name the program gave it', () => {
  give('tomas', KEEPS);
  const text = todo('UID:abc', 'SUMMARY:Order cake', 'DUE;VALUE=DATE:20270305', 'X-OVEN:hot', 'PRIORITY:1');
  expect(put('tomas', 'cake.ics', text)).toMatchObject({ ok: true, value: { added: true } });
  expect(open().find(({ title }) => title === 'Order cake')).toMatchObject({
    due: '2027-03-05',
    importance: 'high',
    created: { actor: 'Tomas', principal: 'Ines' },
  });
  expect(value(readObject(org.ctx('tomas'), list, 'cake.ics')).text).toContain('Order cake');
  // Its name is the program’s own: nobody else finds it by that.
  expect(readObject(org.ctx('ines'), list, 'cake.ics')).toMatchObject({ code: 'notFound' });
  expect(put('ines', 'a.ics', edit(text, ['UID:abc', 'UID:own']))).toMatchObject({ ok: true });
  expect(value(readObject(org.ctx('ines'), list, 'a.ics')).text).toContain('X-OVEN:hot');
  expect(put('ines', 'b.ics', edit(text, ['UID:abc', 'UID:own']))).toMatchObject({ code: 'alreadyThere' });
});

test('what a program changes is what differs; what it didn’t see is said, and what it may not is refused', () => {
  give('tomas', KEEPS);
  give('bruno', { ...NO_RIGHTS, sight: 'full' });
  const lease = one('tomas', 'Sign the lease');
  const moved = edit(lease.text, ['20270303T160000', '20270308T110000']);
  const before = NONE;
  expect(put('bruno', one('bruno', 'Sign the lease').name, moved)).toMatchObject({ code: 'mayNotChange' });
  expect(put('tomas', lease.name, moved, { ...before, match: `"${lease.tag}"` })).toMatchObject({ ok: true });
  const task = open().find(({ title }) => title === 'Sign the lease');
  expect(task).toMatchObject({ due: '2027-03-08T11:00:00Z', notes: 'Both copies', changed: { actor: 'Tomas' } });
  expect(put('tomas', lease.name, lease.text, { ...before, match: `"${lease.tag}"` })).toMatchObject({
    code: 'seenOtherwise',
  });
  const version = task?.version;
  expect(put('tomas', lease.name, one('tomas', 'Sign the lease').text).ok).toBe(true);
  expect(open().find(({ title }) => title === 'Sign the lease')?.version).toBe(version);
  for (const [text, fields] of [
    [edit(lease.text, [/UID:[^\r]*/, 'UID:other']), { uid: 'oneThing' }],
    [edit(lease.text, ['END:VCALENDAR', 'BEGIN:VTODO\r\nUID:z\r\nEND:VTODO\r\nEND:VCALENDAR']), { uid: 'oneThing' }],
    [edit(lease.text, [/DUE;TZID[^\r]*/, 'DUE:soon']), { 'Sign the lease': 'unclear' }],
  ] as const)
    expect(put('tomas', lease.name, text)).toMatchObject({ code: 'badInput', fields });
  expect(put('tomas', lease.name, 'hello')).toMatchObject({ code: 'notACalendar' });
});

test('what a program doesn’t know of stays as it was: our own words, and what only files said', () => {
  for (const visibility of ['open', 'outline', 'private', 'follow'] as const) {
    add(`Lamp ${visibility}`, { visibility, due: { at: '2027-03-03T16:00:00', zone: 'Atlantic/Azores' } });
    const lamp = one('ines', `Lamp ${visibility}`);
    const plain = lamp.text.replace(/^X-PARAMO-[^\n]*\n/gim, '').replace(`Lamp ${visibility}`, `Lantern ${visibility}`);
    expect(plain).not.toContain('X-PARAMO');
    expect(put('ines', lamp.name, plain).ok).toBe(true);
    expect(open().find(({ title }) => title === `Lantern ${visibility}`)).toMatchObject({
      visibility,
      due: '2027-03-03T17:00:00Z',
      zone: 'Atlantic/Azores',
    });
  }
});

test('what repeats comes again once a program says it is done; what it removes is gone, with what it saw', () => {
  const ferns = one('ines', 'Water the ferns');
  expect(ferns.text).toContain('RRULE:FREQ=WEEKLY;COUNT=3');
  const done = edit(ferns.text, ['STATUS:NEEDS-ACTION', 'STATUS:COMPLETED\r\nCOMPLETED:20270302T100000Z']);
  expect(put('ines', ferns.name, done).ok).toBe(true);
  expect(open().filter(({ title }) => title === 'Water the ferns')).toMatchObject([{ due: '2027-03-08' }]);
  expect(value(readObject(org.ctx('ines'), list, ferns.name)).text).toContain('STATUS:COMPLETED');
  const lease = one('ines', 'Sign the lease');
  const remove = (match: string) => deleteObject(org.ctx('ines'), list, lease.name, { ...NONE, match });
  expect(remove('"other"')).toMatchObject({ code: 'seenOtherwise' });
  expect(remove(`"${lease.tag}"`)).toMatchObject({ ok: true });
  expect(all('ines')).not.toContain('Sign the lease');
});

test('a time finds what is due in it, by any of its times where it repeats, and what has no time', () => {
  add('Whenever');
  const within = (from: string, to: string) =>
    [...all('ines', { range: { from: Date.parse(from), to: Date.parse(to) } }).matchAll(/SUMMARY:([^\r]*)/g)].map(
      ([, title]) => title,
    );
  expect(within('2027-03-03T00:00:00Z', '2027-03-04T00:00:00Z')).toEqual([
    'Sign the lease',
    'Half-year talk',
    'Whenever',
  ]);
  expect(within('2027-03-15T10:00:00Z', '2027-03-15T11:00:00Z')).toEqual(['Water the ferns', 'Whenever']);
  expect(within('2027-03-23T00:00:00Z', '2027-03-30T00:00:00Z')).toEqual(['Whenever']);
});

test('what is still to be done is found as programs ask for it (RFC 4791 7.8.9)', () => {
  const done = one('ines', 'Sign the lease');
  expect(put('ines', done.name, edit(done.text, ['STATUS:NEEDS-ACTION', 'STATUS:COMPLETED'])).ok).toBe(true);
  const filtering = (name: string, absent: boolean, text: TextMatch | null) => ({ name, absent, text, params: [] });
  const notCancelled = { value: 'CANCELLED', negate: true, exact: false };
  const props = [filtering('COMPLETED', true, null), filtering('STATUS', false, notCancelled)];
  const todos = { name: 'VTODO', absent: false, props, comps: [] };
  const pending = all('ines', { filter: { name: 'VCALENDAR', absent: false, props: [], comps: [todos] } });
  expect(pending).toContain('Water the ferns');
  expect(pending).not.toContain('Sign the lease');
});

test('the tag says that something changed, and only to those who are shown it', () => {
  give('amara', { ...NO_RIGHTS, sight: 'title' });
  const tags = () => [one('amara', 'Sign the lease').tag, one('ines', 'Sign the lease').tag];
  const before = tags();
  const task = open().find(({ title }) => title === 'Sign the lease');
  value(changeTask(org.ctx('ines'), task?.id ?? '', { version: task?.version ?? 0, fields: { notes: 'One copy' } }));
  const after = tags();
  expect(after[0]).toBe(before[0]);
  expect(after[1]).not.toBe(before[1]);
});
