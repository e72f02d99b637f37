import { describe, expect, test } from 'vitest';
import type { DeskRowWire } from '@/contract/desk.ts';
import { newItem } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { saveJourneys } from '../../repositories/journeys.ts';
import { changeMeeting, createMeeting, holdTimes, readHolds, undoMeeting } from '../meetings/index.ts';
import {
  address,
  answersOn,
  arrived,
  call,
  ctx,
  eachMeetingDay,
  idIn,
  inCalendar,
  itemOf,
  org,
  pass,
  value,
  who,
} from '../meetings/meeting-day.ts';
import { giveAccess, listSightlines, takeAccess } from '../sharing/index.ts';
import { at } from '../small-organisation.ts';
import { putForward } from '../suggestions/suggestions.ts';
import { busy, desk, kinds, row, rows, take } from './at-desk.ts';
import { openDeskRow, readDesk } from './index.ts';

eachMeetingDay();

describe('what needs deciding', () => {
  test('an invitation is answered from it, once: who comes second hears who it was', () => {
    const { uid } = itemOf(call('wren', who('ines', 'bruno'), { place: 'Marsh Lab' }, 'wren'));
    pass();
    const mine = row('tomas', 'answer');
    expect(mine).toMatchObject({ for: 'ines', kind: 'answer', part: 'now', items: [{ title: 'Weir consent' }] });
    expect(mine.steps.map(({ n, act }) => [n, act])).toEqual([
      [1, 'accepted'],
      [2, 'tentative'],
      [3, 'declined'],
      [4, 'another'],
    ]);
    // The same meeting asked of two: each names the other, and each has a key of its own, the same for everybody.
    const twin = row('tomas', 'answer', 'bruno');
    expect([mine.twin, twin.twin]).toEqual([
      { key: twin.key, for: 'bruno' },
      { key: mine.key, for: 'ines' },
    ]);
    expect(row('ines', 'answer').key).toBe(mine.key);
    const done = value(take('tomas', mine.key, { act: 'accepted', comment: '', twin: false }));
    expect(done.sendings).toHaveLength(1);
    expect(inCalendar('ines', uid)?.ownerAnswer).toBe('accepted');
    expect(rows('oona', 'answer')).toEqual([]);
    const why = { ok: false, code: 'deskDecided', data: { by: 'Tomas', act: 'accepted' } };
    expect(openDeskRow(ctx('oona'), mine.key, true)).toMatchObject(why);
    // Whoever doesn’t act for her hears nothing of it by the key.
    expect(openDeskRow(ctx('dario'), mine.key, true)).toMatchObject({ ok: false, code: 'deskGone' });
    expect(take('oona', mine.key, { act: 'declined', comment: '', twin: false })).toMatchObject({
      ok: false,
      code: 'deskDecided',
      data: { by: 'Tomas', act: 'accepted' },
    });
    pass();
    expect(answersOn('wren', uid).ines).toBe('accepted');
    expect(arrived('wren')).toEqual(['answer']);
  });

  test('who may not answer has no such row, and whose right ended gets none of it', () => {
    call('wren', who('ines'), {}, 'wren');
    pass();
    expect(rows('amara', 'answer')).toEqual([]);
    const { key } = row('tomas', 'answer');
    const audience = { kind: 'person', id: 'tomas' } as const;
    value(takeAccess(ctx('ines'), org.calendar('ines'), { audience, seen: undefined as never }));
    expect(take('tomas', key, { act: 'accepted', comment: '', twin: false })).toMatchObject({
      ok: false,
      code: 'deskGone',
    });
    expect(readDesk(ctx('tomas'), 'ines')).toMatchObject({ ok: false, code: 'notFound' });
    expect(rows('dario')).toEqual([]);
  });

  test('a must said no: without them it takes place, and that is taken back', () => {
    const made = call('tomas', who('wren', 'dario'), { place: 'Ridge House' });
    pass();
    const { uid } = itemOf(made);
    const { key: invited } = rows('wren', 'answer')[0] as DeskRowWire;
    value(take('wren', invited, { act: 'declined', comment: 'Not that day', twin: false }));
    pass();
    const refused = row('ines', 'refused');
    expect(refused.about).toMatchObject({
      of: 'meeting',
      people: [{ address: address('wren'), comment: 'Not that day' }],
    });
    expect(refused.steps.map(({ act }) => act)).toEqual(['another', 'without', 'off']);
    value(take('tomas', refused.key, { act: 'without' }));
    expect(kinds('ines')).not.toContain('refused');
    value(take('tomas', refused.key, { act: 'back' }));
    expect(row('ines', 'refused').key).toBe(refused.key);
    const off = value(take('tomas', refused.key, { act: 'off' }));
    expect(inCalendar('ines', uid)).toBeUndefined();
    value(undoMeeting(ctx('tomas'), off.undo ?? ''));
    expect(row('ines', 'refused').key).toBe(refused.key);
  });

  test('where few days are worked, a meeting wants its place as many weeks ahead', () => {
    call('tomas', who('wren'), { when: at('2027-03-31', 10) });
    pass();
    expect(kinds('tomas')).not.toContain('unset');
    // Mondays alone: the fifth of them is the fifth of April.
    const hours = [[['09:00', '17:00']], [], [], [], [], [], []];
    org.db.run('UPDATE person SET work_hours = ? WHERE handle = ?', JSON.stringify(hours), 'ines');
    expect(kinds('tomas')).toContain('unset');
  });

  test('who is silent is nudged, and is silent again a day later; a place makes it whole', () => {
    call('tomas', who('wren'), { when: at('2027-03-05', 10) });
    pass();
    expect(kinds('tomas')).toContain('unset');
    const unset = row('tomas', 'unset');
    expect(unset.steps.map(({ act }) => act)).toEqual(['place', 'link']);
    value(take('tomas', unset.key, { act: 'place', place: 'Marsh Lab' }));
    expect(kinds('tomas')).not.toContain('unset');
    pass();
    pass(24 * 3600);
    const silent = row('tomas', 'silent');
    const sent = value(take('tomas', silent.key, { act: 'nudge' }));
    expect(sent.sendings).toHaveLength(1);
    pass();
    expect(kinds('tomas')).not.toContain('silent');
    pass(24 * 3600);
    expect(kinds('tomas')).toContain('silent');
  });

  test('a clash with what is private is one with nothing that is said; one with what isn’t seen at all is none', () => {
    busy('Physio', 9, 1, { visibility: 'private' });
    busy('Board', 9, 2);
    const clash = row('tomas', 'clash');
    expect(clash.items.map(({ title, withheld }) => withheld ?? title)).toEqual(
      expect.arrayContaining([true, 'Board']),
    );
    expect(JSON.stringify(clash)).not.toContain('Physio');
    expect(
      row('ines', 'clash')
        .items.map(({ title }) => title)
        .sort(),
    ).toEqual(['Board', 'Physio']);
    expect(row('ines', 'clash').key).toBe(clash.key);
  });

  test('a clash ends by moving one of its occurrences, as whoever moves it could anywhere else', () => {
    busy('Board', 9, 2);
    const { id } = busy('Reading', 10, 1);
    const clash = row('tomas', 'clash');
    expect(clash.steps).toMatchObject([{ act: 'another', item: id }, { act: 'left' }]);
    const done = value(take('tomas', clash.key, { act: 'move', item: id, start: '2027-03-04T14:00:00Z' }));
    expect(kinds('tomas')).not.toContain('clash');
    value(undoMeeting(ctx('tomas'), done.undo ?? ''));
    expect(row('tomas', 'clash').key).toBe(clash.key);
  });

  test('held times: one is fixed, all are held for longer, or all are free', () => {
    const held = () =>
      value(
        holdTimes(ctx('tomas'), org.calendar('ines'), {
          title: 'Auditors',
          place: null,
          people: who('wren'),
          length: 60,
          starts: ['2027-03-04T15:00:00Z', '2027-03-05T15:00:00Z'],
          zone: 'Europe/Lisbon',
          lapses: '2027-03-03T18:00:00Z',
        }),
      );
    held();
    const hold = row('tomas', 'hold');
    expect(hold.about).toMatchObject({ of: 'hold', letter: 'A', lapses: '2027-03-03T18:00:00Z' });
    expect(hold.items).toHaveLength(2);
    const fixed = hold.items[0]?.id ?? '';
    expect(value(take('tomas', hold.key, { act: 'fix', item: fixed })).sendings).toHaveLength(1);
    expect(kinds('tomas')).not.toContain('hold');
    held();
    const again = row('tomas', 'hold');
    const first = again.items[0]?.id ?? '';
    // Held for a week longer, nothing of it is near any more.
    const { undo } = value(take('tomas', again.key, { act: 'longer' }));
    expect(kinds('tomas')).not.toContain('hold');
    expect(value(readHolds(ctx('tomas'), first)).lapses).toBe('2027-03-10T18:00:00Z');
    value(undoMeeting(ctx('tomas'), undo ?? ''));
    expect(row('tomas', 'hold').key).toBe(again.key);
    value(take('tomas', again.key, { act: 'free' }));
    expect(kinds('tomas')).not.toContain('hold');
  });

  test('a change put forward is said yes to', () => {
    const { id } = busy('Board', 9, 2);
    org.give('ines', 'wren', { ...PRESETS.helper });
    value(
      putForward(ctx('wren'), org.calendar('ines'), {
        kind: 'change',
        item: id,
        fields: { title: 'Board, short' },
        why: 'Shorter',
      }),
    );
    const one = row('tomas', 'suggestion');
    expect(one.about).toMatchObject({ of: 'suggestion', who: 'Wren', why: 'Shorter', title: 'Board' });
    const done = value(take('tomas', one.key, { act: 'yes', note: '' }));
    expect(done.undo).not.toBeNull();
    expect(kinds('tomas')).not.toContain('suggestion');
  });

  test('access that ends within the week is given for as long again, by who gives it', () => {
    const audience = { kind: 'person', id: 'wren' } as const;
    const span = { from: null, until: '2027-03-05', zone: 'Europe/Lisbon' };
    value(giveAccess(ctx('ines'), org.calendar('ines'), { audience, rights: PRESETS.outline, seen: null, span }));
    expect(kinds('tomas')).not.toContain('grant');
    const one = row('ines', 'grant');
    expect(one).toMatchObject({ about: { of: 'grant', who: 'Wren', preset: 'outline' }, because: [{ why: 'ends' }] });
    value(take('ines', one.key, { act: 'extend' }));
    expect(kinds('ines')).not.toContain('grant');
    const given = () => value(listSightlines(ctx('ines'), org.calendar('ines'))).rows.flatMap(({ grants }) => grants);
    const until = () => given().find(({ preset }) => preset === 'outline')?.until;
    expect(until()).toBe('2027-03-10T00:00:00Z');
    const undone = value(take('ines', one.key, { act: 'back' }));
    expect([undone.said, until()]).toEqual([false, '2027-03-06T00:00:00Z']);
    const again = row('ines', 'grant');
    value(take('ines', again.key, { act: 'takeAccess' }));
    expect([kinds('ines'), until()]).toEqual([[], undefined]);
    value(take('ines', again.key, { act: 'back' }));
    expect(until()).toBe('2027-03-06T00:00:00Z');
  });
});

test('a token for one calendar reads the Desk of that calendar’s owner alone', () => {
  busy('Board', 9, 2);
  busy('Reading', 10, 1);
  const calendar = mainCalendarOf(org.db, org.person('ines').id);
  const token = { key: 'a token', only: calendar?.id ?? 0 };
  const of = (handle: string) => value(readDesk({ ...ctx(handle), token }, 'all'));
  const own = mainCalendarOf(org.db, org.person('tomas').id);
  const shut = value(readDesk({ ...ctx('tomas'), token: { ...token, only: (own?.id ?? 0) + 10_000 } }, 'all'));
  expect([of('tomas').principals.map(({ handle }) => handle), of('tomas').rows.length]).toEqual([['ines'], 1]);
  expect([shut.principals, shut.rows]).toEqual([[], []]);
});

test('a private invitation nobody answered yet clashes with nothing of itself, and no twin tells of it', () => {
  const { uid } = itemOf(call('wren', who('ines', 'bruno'), { place: 'Marsh Lab' }, 'wren'));
  pass();
  const patch = { version: 1, scope: 'one', fields: { visibility: 'private' } } as const;
  value(changeMeeting(ctx('bruno'), idIn('bruno', uid), { ...patch, version: inCalendar('bruno', uid)?.version ?? 0 }));
  expect(rows('tomas').map((one) => [one.kind, one.for, one.twin])).toEqual([['answer', 'ines', null]]);
});

test('of a series far ahead that waits for an answer its next occurrence stands, whenever it began', () => {
  const repeat = { rule: 'FREQ=MONTHLY' };
  const input = newItem.parse({ when: at('2027-02-25', 10), title: 'Monthly', repeat, people: who('ines') });
  value(createMeeting(ctx('wren'), org.calendar('wren'), input));
  pass();
  expect(row('tomas', 'answer').items.map(({ start }) => start)).toEqual(['2027-03-25T10:00:00Z']);
});

test('a meeting of so many that a list leaves them with it is decided like any other', () => {
  const crowd = Array.from({ length: 60 }, (_, n) => `guest-number-${n}-of-the-council@far-away-valley.example`);
  call('tomas', who('wren', ...crowd), { place: 'Ridge House' });
  pass();
  value(take('wren', (rows('wren', 'answer')[0] as DeskRowWire).key, { act: 'declined', comment: '', twin: false }));
  pass();
  expect(row('tomas', 'refused').about).toMatchObject({ people: [{ address: address('wren') }] });
});

test('a step that a row doesn’t have is taken by nobody', () => {
  call('tomas', who('wren'), { when: at('2027-03-05', 10) });
  pass();
  const { key } = row('tomas', 'unset');
  for (const step of [{ act: 'off' }, { act: 'nudge' }, { act: 'free' }, { act: 'yes', note: '' }] as const)
    expect(take('tomas', key, step)).toMatchObject({ ok: false, code: 'deskGone' });
});

test('one press answers the same meeting for both it is asked of', () => {
  const { uid } = itemOf(call('wren', who('ines', 'bruno'), { place: 'Marsh Lab' }, 'wren'));
  pass();
  const done = value(take('tomas', row('tomas', 'answer').key, { act: 'accepted', comment: '', twin: true }));
  // What waits of both is taken back with it.
  expect(done.sendings).toHaveLength(2);
  expect(rows('tomas', 'answer')).toEqual([]);
  pass();
  expect(answersOn('wren', uid)).toEqual({ ines: 'accepted', bruno: 'accepted' });
});

test('a series that waits for an answer, or is refused, is one row', () => {
  const repeat = { rule: 'FREQ=DAILY;COUNT=30' };
  value(
    createMeeting(
      ctx('wren'),
      org.calendar('wren'),
      newItem.parse({ when: at('2027-03-03', 10), title: 'Daily', place: 'Hut', repeat, people: who('ines') }),
    ),
  );
  pass();
  expect(rows('tomas', 'answer')).toHaveLength(1);
  value(take('tomas', row('tomas', 'answer').key, { act: 'declined', comment: '', twin: false }));
  pass();
  expect(rows('wren', 'refused')).toHaveLength(1);
});

test('where she is, until when, what is next and how long the way is, as far as it is seen', () => {
  saveJourneys(org.db, [['Ridge House', 'Marsh Lab', 35]]);
  org.add('ines', 'ines', { when: at('2027-03-02', 8, 2), title: 'Now', place: 'Ridge House' });
  org.add('ines', 'ines', { when: at('2027-03-02', 11), title: 'Then', place: 'Marsh Lab' });
  const of = (handle: string) => desk(handle).principals.find((one) => one.handle === 'ines');
  expect(of('tomas')).toMatchObject({
    here: { place: 'Ridge House', until: '2027-03-02T10:00:00Z' },
    next: { title: 'Then' },
    way: 35,
  });
  org.add('ines', 'ines', { when: at('2027-03-02', 10), title: 'Physio', place: 'Clinic', visibility: 'private' });
  const private_ = of('tomas');
  expect([private_?.next?.title, private_?.way]).toEqual([undefined, null]);
  expect(of('ines')?.next).toMatchObject({ title: 'Physio' });
  pass(3600 + 60);
  expect(of('tomas')?.here).toEqual({ place: null, away: false, until: '2027-03-02T11:00:00Z' });
});
