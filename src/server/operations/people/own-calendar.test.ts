import { afterEach, beforeEach, expect, test } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { queryFreeBusy } from '../dav/index.ts';
import { listItems } from '../items/index.ts';
import { createMeeting } from '../meetings/index.ts';
import { search } from '../search/index.ts';
import { giveAccess } from '../sharing/give-access.ts';
import { at, type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { bringCalendarBack, changeCalendar, removeCalendar } from './own-calendar.ts';
import { beginCalendar } from './people.ts';

let org: SmallOrganisation;
let key = '';
beforeEach(() => {
  org = smallOrganisation();
  const made = beginCalendar(org.ctx('ines'), { of: 'ines', name: 'Visits' });
  key = made.ok ? made.value.calendar : '';
  const audience = { kind: 'person', id: 'tomas' } as const;
  giveAccess(org.ctx('ines'), key, { audience, rights: PRESETS.steward, seen: null });
  createMeeting(org.ctx('ines'), key, newItem.parse({ when: at('2027-03-03', 10), title: 'Heron walk' }));
});
afterEach(() => org.close());

const see = (who: string, days = 0) => {
  const listed = listItems(org.ctx(who, START + days * 86_400_000), key, WEEK);
  return listed.ok ? listed.value.items.map((i) => i.title) : listed.code;
};
const found = () => {
  const answer = search(org.ctx('ines'), { words: 'heron', everywhere: '1' });
  return answer.ok ? answer.value.found.length : -1;
};

test('taken away by its owner alone, a calendar is nowhere; brought back within thirty days it is as it was', () => {
  expect(see('tomas')).toEqual(['Heron walk']);
  expect(removeCalendar(org.ctx('tomas'), key)).toMatchObject({ code: 'ownerOnly' });
  expect(removeCalendar(org.ctx('ines'), org.calendar('ines'))).toMatchObject({ code: 'mainStays' });
  expect(removeCalendar(org.ctx('ines'), key)).toMatchObject({ ok: true });
  expect([see('ines'), see('tomas'), found()]).toEqual(['notFound', 'notFound', 0]);
  expect(removeCalendar(org.ctx('ines'), key)).toMatchObject({ code: 'notFound' });
  expect(bringCalendarBack(org.ctx('tomas'), key)).toMatchObject({ code: 'notFound' });
  expect(bringCalendarBack(org.ctx('ines', START + 31 * 86_400_000), key)).toMatchObject({ code: 'notFound' });
  expect(bringCalendarBack(org.ctx('ines', START + 1000), key)).toMatchObject({ ok: true });
  expect([see('ines'), see('tomas'), found()]).toEqual([['Heron walk'], ['Heron walk'], 1]);
});

test('its owner says on which clock its whole days are, and everybody’s view of them goes with that', () => {
  const day = { start: '2027-03-03', end: '2027-03-04', allDay: true, zone: 'Europe/Lisbon' };
  org.add('ines', 'ines', { title: 'Fair', when: day });
  const main = org.calendar('ines');
  const change = (zone: string, who = 'ines') =>
    changeCalendar(org.ctx(who), main, { name: 'Ines', description: '', zone });
  expect(change('Nowhere/Land')).toMatchObject({ fields: { zone: 'zone' } });
  expect(change('America/Bogota', 'tomas')).toMatchObject({ ok: false });
  // What is taken is asked for in instants: the day begins five hours later there.
  const instants = { from: Date.UTC(2027, 2, 2), to: Date.UTC(2027, 2, 6) };
  const taken = () => {
    const read = queryFreeBusy(org.ctx('ines'), main, instants);
    return read.ok ? /^FREEBUSY[^:]*:(\S+)/m.exec(read.value)?.[1] : read.code;
  };
  expect(taken()).toBe('20270303T000000Z/20270304T000000Z');
  expect(change('America/Bogota')).toMatchObject({ ok: true });
  expect(listItems(org.ctx('ines'), main, WEEK)).toMatchObject({
    value: { head: { calendar: { zone: 'America/Bogota' } } },
  });
  expect(taken()).toBe('20270303T050000Z/20270304T050000Z');
  // Not given, it stays.
  expect(changeCalendar(org.ctx('ines'), main, { name: 'Ines', description: 'x' })).toMatchObject({ ok: true });
  expect(listItems(org.ctx('ines'), main, WEEK)).toMatchObject({
    value: { head: { calendar: { zone: 'America/Bogota' } } },
  });
});

test('its owner names it otherwise and says what it is for; the main one keeps the name it carries', () => {
  expect(changeCalendar(org.ctx('ines'), key, { name: 'Walks', description: 'On the moor' })).toMatchObject({
    ok: true,
  });
  const head = listItems(org.ctx('tomas'), key, WEEK);
  expect(head).toMatchObject({ value: { head: { calendar: { name: 'Walks', description: 'On the moor' } } } });
  expect(changeCalendar(org.ctx('tomas'), key, { name: 'X', description: '' })).toMatchObject({ code: 'ownerOnly' });
  const main = org.calendar('ines');
  expect(changeCalendar(org.ctx('ines'), main, { name: 'Else', description: 'Mine' })).toMatchObject({ ok: true });
  expect(listItems(org.ctx('ines'), main, WEEK)).toMatchObject({ value: { head: { calendar: { name: 'Ines' } } } });
  expect(changeCalendar(org.ctx('ines'), key, { name: 'ines', description: '' })).toMatchObject({
    code: 'alreadyThere',
  });
});
