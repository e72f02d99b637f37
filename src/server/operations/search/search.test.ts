import { afterEach, beforeEach, expect, test } from 'vitest';
import { NO_RIGHTS, PRESETS } from '@/core/access/index.ts';
import { itemByKey } from '../../repositories/items.ts';

import { changeMeeting, removeMeeting, undoMeeting } from '../meetings/index.ts';

import { at, type SmallOrganisation, smallOrganisation } from '../small-organisation.ts';
import { findDays, search } from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation();
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('ines', 'amara', { ...NO_RIGHTS, sight: 'title' });
});
afterEach(() => org.close());

const find = (who: string, words: string, more: object = {}) => {
  const found = search(org.ctx(who), { words, everywhere: '1', ...more });
  if (!found.ok) throw new Error(found.code);
  return found.value.found.map(({ item }) => item.title);
};

test('items are found by the beginnings of their words, in whatever field, whatever the accents and the case', () => {
  org.add('ines', 'ines', {
    title: 'Café au Weir',
    when: at('2027-03-03', 10),
    place: 'Marsh Lab',
    notes: 'Bring the MAP',
  });
  org.add('ines', 'ines', { title: 'Board', when: at('2027-03-04', 10), categories: ['Peat'], kind: 'focus' });
  expect(find('tomas', 'cafe we')).toEqual(['Café au Weir']);
  expect(find('tomas', 'marsh map')).toEqual(['Café au Weir']);
  expect(find('tomas', 'PEAT')).toEqual(['Board']);
  expect(find('tomas', 'weir board')).toEqual([]);
  expect(find('tomas', 'b', { kind: 'meeting' })).toEqual(['Café au Weir']);
  expect(find('tomas', 'b', { from: '2027-03-04' })).toEqual(['Board']);
  // What a query language would be is words like others.
  expect(find('tomas', 'cafe" OR title:board')).toEqual([]);
  expect(search(org.ctx('tomas'), { words: '"*' })).toMatchObject({ code: 'badInput' });
});

test('what one doesn’t see is neither matched nor counted, wherever else the word stands', () => {
  const add = (title: string, more: object) => org.add('ines', 'ines', { title, when: at('2027-03-03', 10), ...more });
  add('Salary', { notes: 'heron' });
  add('Heron, private', { visibility: 'private' });
  add('Open', { visibility: 'open', notes: 'heron' });
  expect(find('tomas', 'heron').sort()).toEqual(['Open', 'Salary']);
  // Titles alone: the notes of what follows aren’t hers, those of what is open are.
  expect(find('amara', 'heron')).toEqual(['Open']);
  expect(find('amara', 'salary')).toEqual(['Salary']);
  expect(find('wren', 'salary')).toEqual([]);
  expect(find('wren', 'heron')).toEqual(['Open']);
  // Without saying everywhere, in the calendars one works with.
  expect(search(org.ctx('wren'), { words: 'heron' })).toMatchObject({ value: { found: [], cut: false } });
});

test('that there may be more is said of what one sees alone: hidden words fill no room', () => {
  for (let n = 0; n < 60; n++)
    org.add('ines', 'ines', { title: `Row ${n}`, when: at('2027-03-03', 10), notes: 'heron', visibility: 'follow' });
  org.add('ines', 'ines', { title: 'Heron', when: at('2027-03-04', 10) });
  org.add('ines', 'ines', { title: 'Heron shut', when: at('2027-03-04', 11), visibility: 'private' });
  org.add('ines', 'tomas', { title: 'Heron by Tomas', when: at('2027-03-04', 12), visibility: 'private' });
  // What they see takes the room, and only that.
  const few = (who: string) => search(org.ctx(who), { words: 'heron' }, 3);
  expect(few('amara')).toMatchObject({ value: { found: [{ item: { title: 'Heron' } }], cut: false } });
  expect(few('tomas')).toMatchObject({ value: { cut: true } });
  expect(find('tomas', 'heron tomas', { everywhere: undefined })).toEqual(['Heron by Tomas']);
});

test('what is changed, removed and undone is found as it is; of a series its next occurrence', () => {
  const { id } = org.add('ines', 'ines', {
    title: 'Rounds',
    when: at('2027-01-04', 10),
    repeat: { rule: 'FREQ=WEEKLY' },
  });
  const found = search(org.ctx('tomas'), { words: 'rounds' });
  expect(found.ok && found.value.found[0]?.item.start.slice(0, 10)).toBe('2027-03-08');
  const key = id.split('~')[0] ?? '';
  const version = () => itemByKey(org.db, key)?.version ?? 0;
  changeMeeting(org.ctx('ines'), key, { version: version(), scope: 'all', fields: { title: 'Visits' } });
  expect([find('tomas', 'rounds'), find('tomas', 'visits')]).toEqual([[], ['Visits']]);
  const gone = removeMeeting(org.ctx('ines'), key, { version: version(), scope: 'all' });
  expect(find('tomas', 'visits')).toEqual([]);
  undoMeeting(org.ctx('ines'), gone.ok ? gone.value.undo : '');
  expect(find('tomas', 'visits')).toEqual(['Visits']);
});

test('of a series the next that isn’t over stands for it, going on, by date, with the next left out, or over altogether', () => {
  const series = (title: string, when: ReturnType<typeof at>, rule: string) =>
    org.add('ines', 'ines', { title: `Heron ${title}`, when, repeat: { rule } });
  series('going on', at('2027-01-05', 8), 'FREQ=WEEKLY;COUNT=40');
  series('by date', { allDay: true, start: '2027-01-05', end: '2027-01-07', zone: 'Europe/Lisbon' }, 'FREQ=WEEKLY');
  const { id } = series('left out', at('2027-01-06', 10), 'FREQ=WEEKLY');
  series('over', at('2027-01-06', 10), 'FREQ=DAILY;COUNT=3');
  const key = id.split('~')[0] ?? '';
  const left = removeMeeting(org.ctx('ines'), `${key}~${Math.floor(Date.UTC(2027, 2, 3, 10) / 1000).toString(36)}`, {
    version: itemByKey(org.db, key)?.version ?? 0,
    scope: 'one',
  });
  expect(left).toMatchObject({ ok: true });
  const now = Date.UTC(2027, 2, 2, 8, 30);
  const found = search({ ...org.ctx('tomas'), now }, { words: 'heron' });
  expect(found.ok && found.value.found.map(({ item }) => `${item.title} ${item.start.slice(0, 10)}`).sort()).toEqual([
    'Heron by date 2027-03-02',
    'Heron going on 2027-03-02',
    'Heron left out 2027-03-10',
    'Heron over 2027-01-06',
  ]);
});

test('days of a calendar are marked by what one sees there alone, each occurrence of a series on its own', () => {
  const add = (title: string, more: object) => org.add('ines', 'ines', { title, when: at('2027-03-03', 10), ...more });
  add('Salary', { notes: 'heron' });
  add('Heron, private', { visibility: 'private' });
  add('Heron count', { when: at('2027-03-05', 22), repeat: { rule: 'FREQ=WEEKLY;COUNT=3' }, kind: 'focus' });
  const days = (who: string, words: string, more: object = {}) => {
    const range = { from: '2027-03-01', to: '2027-03-15', zone: 'Europe/Lisbon' };
    const found = findDays(org.ctx(who), org.calendar('ines'), { words, ...range, ...more });
    if (!found.ok) throw new Error(found.code);
    return found.value.days.map(({ date, count }) => `${date} ${count}`);
  };
  expect(days('ines', 'heron')).toEqual(['2027-03-03 2', '2027-03-05 1', '2027-03-12 1']);
  expect(days('tomas', 'heron')).toEqual(['2027-03-03 1', '2027-03-05 1', '2027-03-12 1']);
  expect(days('amara', 'heron')).toEqual(['2027-03-05 1', '2027-03-12 1']);
  expect(days('wren', 'heron')).toEqual([]);
  expect(days('ines', 'heron', { kind: 'meeting' })).toEqual(['2027-03-03 2']);
  // On the clock of whoever looks.
  expect(days('ines', 'count', { zone: 'Asia/Tokyo' })).toEqual(['2027-03-06 1', '2027-03-13 1']);
  org.give('ines', 'dario', NO_RIGHTS);
  const none = { words: 'heron', from: '2027-03-01', to: '2027-03-15', zone: 'Europe/Lisbon' };
  expect(findDays(org.ctx('ines'), 'none', none)).toMatchObject({ ok: false });
});

test('an organiser without a name is found by their address', () => {
  const organiser = { name: null, address: 'quill@audit.example' };
  org.add('ines', 'ines', { title: 'Nameless', when: at('2027-03-03', 10) }, { organiser, attendees: [] });
  expect(find('tomas', 'quill')).toEqual(['Nameless']);
});
