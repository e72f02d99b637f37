import { beforeEach, describe, expect, test } from 'vitest';
import { PRESETS } from '@/core/access/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { itemByKey, itemsByUid } from '../../repositories/items.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { MOST_ADDED_A_DAY } from '../deciding/index.ts';
import { changeHouseRules } from '../sharing/house-rules.ts';
import { at, houseRulesWith } from '../small-organisation.ts';
import {
  actOnMeeting,
  answerItem,
  changeMeeting,
  moveMeeting,
  readMeeting,
  removeMeeting,
  takeBack,
  undoSeveral,
} from './index.ts';
import {
  accepts,
  address,
  answersOn,
  arrived,
  call,
  ctx,
  eachMeetingDay,
  idIn,
  inCalendar,
  itemOf,
  mail,
  org,
  pass,
  value,
  who,
} from './meeting-day.ts';

eachMeetingDay();

describe('changing and calling off', () => {
  test('only those hear of it whom it concerns', () => {
    const made = call('tomas', who('bruno', 'wren'));
    pass();
    const { uid, key } = itemOf(made);
    const change = (body: Partial<Parameters<typeof changeMeeting>[2]>) => {
      const { version } = inCalendar('ines', uid) as StoredItem;
      return value(changeMeeting(ctx('tomas'), key, { version, scope: 'one', fields: {}, ...body }));
    };
    expect(change({ fields: { title: 'Weir', notes: 'Bring the map' } }).sending ?? null).toBeNull();
    expect(change({ fields: { visibility: 'private', shows: 'away', briefing: 'B' } }).sending ?? null).toBeNull();
    pass();
    expect([arrived('bruno'), inCalendar('bruno', uid)]).toMatchObject([
      ['invitation'],
      { title: 'Weir consent', visibility: 'private' },
    ]);
    expect(change({ people: who('bruno', 'wren', 'dario') }).sending).toMatchObject({ to: 1 });
    pass();
    expect([arrived('bruno'), arrived('dario')]).toEqual([['invitation'], ['invitation']]);
    expect(inCalendar('dario', uid)).toMatchObject({ title: 'Weir', notes: 'Bring the map', visibility: 'private' });
    accepts('bruno', uid);
    pass();
    expect(change({ fields: { place: 'Marsh Lab' } }).sending).toMatchObject({ to: 3 });
    pass();
    expect(answersOn('ines', uid).bruno).toBe('accepted');
    expect(change({ people: who('bruno', 'dario') }).sending).toMatchObject({ to: 1 });
    pass();
    expect(inCalendar('wren', uid)).toMatchObject({ cancelled: true });
    expect(change({ fields: { title: 'Weir again' }, tellAll: true }).sending).toMatchObject({ to: 2 });
    pass();
    expect(inCalendar('bruno', uid)?.title).toBe('Weir again');
    expect(change({ when: at('2027-03-05', 10) }).sending).toMatchObject({ to: 2 });
    pass();
    expect(answersOn('ines', uid).bruno).toBe('needs-action');
    const { version } = inCalendar('ines', uid) as StoredItem;
    expect(value(removeMeeting(ctx('tomas'), key, { version, scope: 'all' })).sending).toMatchObject({ to: 2 });
    pass();
    expect([inCalendar('bruno', uid)?.cancelled, inCalendar('ines', uid)]).toEqual([true, undefined]);
  });

  test('undone after it left, what was said is set right; answers are never undone with it', () => {
    const made = call('tomas', who('bruno'));
    pass();
    const { uid, key, version } = itemOf(made);
    const moved = value(
      changeMeeting(ctx('tomas'), key, { version, scope: 'one', when: at('2027-03-04', 9), fields: {} }),
    );
    pass();
    accepts('bruno', uid);
    pass();
    expect(value(undoSeveral(ctx('tomas'), moved.undo)).sending).toMatchObject({ to: 1 });
    expect(answersOn('ines', uid).bruno).toBe('accepted');
    pass();
    expect([inCalendar('bruno', uid)?.start, answersOn('ines', uid).bruno]).toEqual([
      Date.UTC(2027, 2, 3, 10),
      'needs-action',
    ]);
    const off = value(removeMeeting(ctx('tomas'), key, { version: itemOf(made).version, scope: 'all' }));
    pass();
    value(undoSeveral(ctx('tomas'), off.undo));
    pass();
    expect(inCalendar('bruno', uid)).toMatchObject({ cancelled: false, ownerAnswer: 'needs-action' });
  });

  test('an unanswered invitation is nudged; one that all have answered isn’t', () => {
    const made = call('tomas', who('bruno', 'wren'));
    pass();
    const { uid, key } = itemOf(made);
    value(
      answerItem(ctx('bruno'), idIn('bruno', uid), {
        answer: 'declined',
        comment: '',
        seen: 'needs-action',
        scope: 'all',
      }),
    );
    pass();
    expect(value(actOnMeeting(ctx('tomas'), key, { act: 'nudge', whom: null })).sending).toMatchObject({ to: 1 });
    pass();
    expect([arrived('wren'), arrived('bruno')]).toEqual([['invitation', 'invitation'], ['invitation']]);
    accepts('wren', uid);
    pass();
    expect(actOnMeeting(ctx('tomas'), key, { act: 'nudge', whom: null })).toMatchObject({ code: 'allAnswered' });
  });

  test('one of a series is moved, left out, and answered by itself; the rest stands', () => {
    const rule = 'FREQ=WEEKLY;COUNT=4';
    const made = call('tomas', who('bruno', 'marta@quill-audit.example'), { repeat: { rule } });
    pass();
    const { uid, key, version } = itemOf(made);
    accepts('bruno', uid);
    pass();
    const week = (n: number) => (Date.UTC(2027, 2, 3 + 7 * n, 10) / 1000).toString(36);
    value(
      changeMeeting(ctx('tomas'), `${key}~${week(1)}`, {
        version,
        scope: 'one',
        when: at('2027-03-11', 15),
        fields: {},
      }),
    );
    pass();
    const bruno = mainCalendarOf(org.db, org.person('bruno').id)?.id ?? 0;
    const [whole, one] = itemsByUid(org.db, bruno, uid);
    expect(one).toMatchObject({
      recurrence: '2027-03-10T10:00:00',
      start: Date.UTC(2027, 2, 11, 15),
      ownerAnswer: 'needs-action',
    });
    expect([one?.seriesId, whole?.ownerAnswer]).toEqual([whole?.id, 'accepted']);
    value(removeMeeting(ctx('tomas'), `${key}~${week(2)}`, { version: itemOf(made).version, scope: 'one' }));
    pass();
    expect(itemsByUid(org.db, bruno, uid)[0]).toMatchObject({ left: ['2027-03-17T10:00:00'], ownerAnswer: 'accepted' });
    expect(mail()).toEqual([
      'REQUEST marta@quill-audit.example',
      'REQUEST marta@quill-audit.example',
      'CANCEL marta@quill-audit.example',
    ]);
    value(
      answerItem(ctx('bruno'), `${idIn('bruno', uid)}~${week(3)}`, {
        answer: 'declined',
        comment: '',
        seen: 'accepted',
        scope: 'one',
      }),
    );
    pass();
    const ines = mainCalendarOf(org.db, org.person('ines').id)?.id ?? 0;
    const read = value(readMeeting(ctx('tomas'), `${key}~${week(3)}`));
    expect(read.people[0]).toMatchObject({ address: address('bruno'), answer: 'declined' });
    expect(answersOn('ines', uid).bruno).toBe('accepted');
    expect(itemsByUid(org.db, ines, uid)).toHaveLength(3);
  });

  test('from one occurrence on, a series goes on as another; those asked hear of both, and answers begin afresh only where its hours moved', () => {
    const made = call('tomas', who('bruno'), { repeat: { rule: 'FREQ=WEEKLY;COUNT=6' } });
    pass();
    const { uid, key, version } = itemOf(made);
    accepts('bruno', uid);
    pass();
    const week = (n: number) => (Date.UTC(2027, 2, 3 + 7 * n, 10) / 1000).toString(36);
    const placed = value(
      changeMeeting(ctx('tomas'), `${key}~${week(2)}`, { version, scope: 'later', fields: { place: 'Seed Store' } }),
    );
    pass();
    const next = itemOf(placed);
    expect([next.rule, itemOf(made).rule]).toEqual(['FREQ=WEEKLY;COUNT=4', 'FREQ=WEEKLY;UNTIL=20270317T095959']);
    expect(inCalendar('bruno', uid)).toMatchObject({
      rule: 'FREQ=WEEKLY;UNTIL=20270317T095959',
      ownerAnswer: 'accepted',
    });
    expect(inCalendar('bruno', next.uid)).toMatchObject({ place: 'Seed Store', ownerAnswer: 'accepted' });
    expect([answersOn('ines', uid).bruno, answersOn('ines', next.uid).bruno]).toEqual(['accepted', 'accepted']);
    const thursdays = value(
      changeMeeting(ctx('tomas'), `${next.key}~${week(3)}`, {
        version: itemOf(placed).version,
        scope: 'later',
        when: at('2027-03-25', 11),
        fields: {},
      }),
    );
    pass();
    const last = itemOf(thursdays);
    expect([last.rule, last.start]).toEqual(['FREQ=WEEKLY;COUNT=3', Date.UTC(2027, 2, 25, 11)]);
    expect(inCalendar('bruno', last.uid)?.ownerAnswer).toBe('needs-action');
    const undone = undoSeveral(ctx('tomas'), thursdays.undo);
    expect(undone.ok).toBe(true);
    pass();
    expect([inCalendar('bruno', last.uid)?.cancelled, inCalendar('bruno', next.uid)?.rule]).toEqual([
      true,
      'FREQ=WEEKLY;COUNT=4',
    ]);
  });

  test('somebody added to a series comes to its changed occurrences too, and goes from them with it', () => {
    const made = call('tomas', who('bruno'), { repeat: { rule: 'FREQ=WEEKLY;COUNT=4' } });
    pass();
    const { uid, key, version } = itemOf(made);
    const second = (Date.UTC(2027, 2, 10, 10) / 1000).toString(36);
    const first = (Date.UTC(2027, 2, 3, 10) / 1000).toString(36);
    value(
      changeMeeting(ctx('tomas'), `${key}~${second}`, {
        version,
        scope: 'one',
        when: at('2027-03-11', 15),
        fields: {},
      }),
    );
    pass();
    const wren = mainCalendarOf(org.db, org.person('wren').id)?.id ?? 0;
    const widened = value(
      changeMeeting(ctx('tomas'), `${key}~${first}`, {
        version: itemOf(made).version,
        scope: 'all',
        people: who('bruno', 'wren'),
        fields: {},
      }),
    );
    pass();
    expect(itemsByUid(org.db, wren, uid).map((i) => i.start)).toEqual([
      Date.UTC(2027, 2, 3, 10),
      Date.UTC(2027, 2, 11, 15),
    ]);
    value(undoSeveral(ctx('tomas'), widened.undo));
    pass();
    expect(itemsByUid(org.db, wren, uid).map((i) => i.cancelled)).toEqual([true, true]);
    expect(arrived('bruno')).toEqual(['invitation', 'invitation']);
  });

  test('where the house gives each meeting a joining link, one without gets its own; an item nobody is asked to gets none', () => {
    value(changeHouseRules(ctx('ines'), houseRulesWith({}, { meetingLinks: true })));
    expect(itemOf(call('tomas', who('bruno'))).link).toMatch(/^https:\/\/rooms\.cloudmoor\.example\/[\w-]{22}$/);
    expect(itemOf(call('tomas', who('bruno'), { link: 'https://own.example/1' })).link).toBe('https://own.example/1');
    expect(itemOf(call('tomas', [])).link).toBeNull();
  });

  test('a series moves to another day of the week as a whole; what comes after an occurrence is called off', () => {
    const made = call('tomas', who('bruno'), { repeat: { rule: 'FREQ=WEEKLY;BYDAY=WE;COUNT=6' } });
    pass();
    const { uid, key, version } = itemOf(made);
    const first = (Date.UTC(2027, 2, 3, 10) / 1000).toString(36);
    const moved = changeMeeting(ctx('tomas'), `${key}~${first}`, {
      version,
      scope: 'all',
      when: at('2027-03-05', 9),
      fields: {},
    });
    expect(value(moved).sending).toMatchObject({ to: 1 });
    pass();
    expect(inCalendar('bruno', uid)).toMatchObject({
      rule: 'FREQ=WEEKLY;COUNT=6;BYDAY=FR',
      start: Date.UTC(2027, 2, 5, 9),
    });
    const third = (Date.UTC(2027, 2, 19, 9) / 1000).toString(36);
    value(removeMeeting(ctx('tomas'), `${key}~${third}`, { version: itemOf(made).version, scope: 'later' }));
    pass();
    expect(inCalendar('bruno', uid)?.rule).toBe('FREQ=WEEKLY;UNTIL=20270319T085959;BYDAY=FR');
  });

  test('booked in the wrong calendar, it moves with its people and answers, and they hear who calls it now', () => {
    const made = call('tomas', who('wren', 'marta@quill-audit.example'), {}, 'ines');
    pass();
    const was = itemOf(made);
    accepts('wren', was.uid);
    pass();
    const moved = value(moveMeeting(ctx('tomas'), was.key, { to: org.calendar('bruno'), version: was.version }));
    expect(moved.sending).toMatchObject({ to: 2, outside: 1 });
    value(takeBack(ctx('tomas'), moved.sending?.key ?? ''));
    expect(inCalendar('ines', was.uid)).toMatchObject({ title: 'Weir consent', uid: was.uid });
    const again = itemByKey(org.db, was.key) as StoredItem;
    value(moveMeeting(ctx('tomas'), was.key, { to: org.calendar('bruno'), version: again.version }));
    pass();
    const { uid } = itemByKey(org.db, was.key) as StoredItem;
    expect(inCalendar('ines', uid)).toBeUndefined();
    expect(answersOn('bruno', uid)).toEqual({ wren: 'accepted', marta: 'needs-action' });
    expect(inCalendar('wren', uid)).toMatchObject({ organiser: { name: 'Bruno' }, ownerAnswer: 'accepted' });
    expect(mail()).toEqual([
      'REQUEST marta@quill-audit.example',
      'CANCEL marta@quill-audit.example',
      'REQUEST marta@quill-audit.example',
    ]);
    // From now on answers go to who calls it.
    value(
      answerItem(ctx('wren'), idIn('wren', uid), { answer: 'declined', comment: '', seen: 'accepted', scope: 'all' }),
    );
    pass();
    expect(answersOn('bruno', uid).wren).toBe('declined');
  });
});

describe('moving into another calendar takes all that is held', () => {
  beforeEach(() => org.give('amara', 'tomas', PRESETS.delegate));

  test('so whoever only arranges moves nothing', () => {
    const { key, version } = itemOf(call('ines', who(), { briefing: 'Between us' }));
    const to = org.calendar('amara');
    expect(moveMeeting(ctx('amara'), key, { to, version })).toMatchObject({ code: 'mayNotSpeak' });
    expect(moveMeeting(ctx('tomas'), key, { to, version })).toMatchObject({ ok: true });
  });

  test('so what a file brought goes only with whom a file may be taken out by, and into a calendar with room', () => {
    const { key, version } = itemOf(call('ines', who()));
    const to = org.calendar('amara');
    org.db.run(`UPDATE item SET kept = '["X-CASE:47"]' WHERE key = ?`, key);
    expect(moveMeeting(ctx('tomas'), key, { to, version })).toMatchObject({ code: 'keptStays' });
    org.db.run(`UPDATE item SET kept = '[]' WHERE key = ?`, key);
    // Its day's worth of additions is used up by then.
    const own = org.person('tomas').id;
    const columns = org.db
      .all<{ name: string }>(
        `SELECT name FROM pragma_table_info('item') WHERE name NOT IN ('id', 'key', 'uid', 'created_by')`,
      )
      .map((c) => c.name)
      .join(', ');
    org.db.run(
      `WITH RECURSIVE n (i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < ?)
       INSERT INTO item (key, uid, created_by, ${columns}) SELECT 'k' || i, 'u' || i, ?, ${columns} FROM item, n WHERE key = ?`,
      MOST_ADDED_A_DAY,
      own,
      key,
    );
    expect(moveMeeting(ctx('tomas'), key, { to, version })).toMatchObject({ code: 'addedTooMuch' });
  });

  test('so nobody moves a series with an occurrence they may not touch, nor takes people out of that', () => {
    const made = call('ines', who('bruno'), { repeat: { rule: 'FREQ=WEEKLY;COUNT=4' } });
    pass();
    const { uid, key } = itemOf(made);
    const second = { scope: 'one' as const, fields: { visibility: 'private' as const, title: 'Severance' } };
    const { version } = itemOf(made);
    value(
      changeMeeting(ctx('ines'), `${key}~${(Date.UTC(2027, 2, 10, 10) / 1000).toString(36)}`, { version, ...second }),
    );
    pass();
    const whole = inCalendar('ines', uid) as StoredItem;
    const move = { to: org.calendar('amara'), version: whole.version };
    expect(moveMeeting(ctx('tomas'), key, move)).toMatchObject({ code: 'mayNotRemove' });
    expect(inCalendar('ines', uid)?.calendarId).toBe(whole.calendarId);
    const without = { version: whole.version, scope: 'all' as const, fields: {}, people: who('dario') };
    value(changeMeeting(ctx('tomas'), key, without));
    pass();
    const calendar = mainCalendarOf(org.db, org.person('ines').id)?.id ?? 0;
    const apart = itemsByUid(org.db, calendar, uid).find((i) => i.recurrence !== null);
    expect(apart?.attendees.map((a) => a.address)).toEqual([address('bruno')]);
  });

  test('who is added to what stood there, and taken back before it leaves, is never asked', () => {
    const { id } = org.add('ines', 'ines', { title: 'Weir', when: at('2027-03-03', 10) });
    const patch = { version: 1, scope: 'one' as const, fields: { title: 'Weir consent' }, people: who('bruno') };
    const added = value(changeMeeting(ctx('tomas'), id, patch));
    expect(added.sending).toMatchObject({ to: 1 });
    expect(value(undoSeveral(ctx('tomas'), added.undo)).sending).toBeFalsy();
    pass();
    const now = itemByKey(org.db, id);
    expect([now?.title, now?.attendees]).toEqual(['Weir', []]);
    expect(arrived('bruno')).toEqual([]);
  });
});
