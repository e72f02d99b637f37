import { describe, expect, test } from 'vitest';
import { newItem } from '@/contract/items/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { saveResource } from '../../repositories/people.ts';
import { setMembership } from '../people/groups.ts';
import { giveAccess } from '../sharing/give-access.ts';
import { listSightlines } from '../sharing/sightlines.ts';
import { at } from '../small-organisation.ts';
import { changeMeeting, readMeeting, sayIt, takeBack, whoCanCome } from './index.ts';
import {
  address,
  answersOn,
  arrived,
  call,
  ctx,
  eachMeetingDay,
  inCalendar,
  itemOf,
  mail,
  org,
  pass,
  value,
  who,
} from './meeting-day.ts';

eachMeetingDay();

describe('calling a meeting', () => {
  test('it leaves after ten seconds, in the owner’s name, as the act of who pressed; those inside have it, those outside get mail', () => {
    const made = call('tomas', who('bruno', 'wren', 'marta@quill-audit.example'));
    expect(made.sending).toMatchObject({ to: 3, outside: 1 });
    const { uid } = itemOf(made);
    pass(9);
    expect([inCalendar('bruno', uid), mail(), arrived('bruno')]).toEqual([undefined, [], []]);
    // Nobody is a party to it before they were asked.
    expect(itemOf(made)).toMatchObject({ organiser: null, attendees: [] });
    pass(2);
    expect(inCalendar('bruno', uid)).toMatchObject({
      title: 'Weir consent',
      organiser: { name: 'Ines', address: address('ines') },
      ownerAnswer: 'needs-action',
      ownerInvited: true,
      shows: 'busy',
    });
    expect(mail()).toEqual(['REQUEST marta@quill-audit.example']);
    expect(arrived('bruno')).toEqual(['invitation']);
    expect(itemOf(made).organiser).toEqual({ name: 'Ines', address: address('ines') });
    expect(answersOn('ines', uid)).toEqual({ bruno: 'needs-action', wren: 'needs-action', marta: 'needs-action' });
    pass();
    expect(arrived('bruno')).toEqual(['invitation']);
  });

  test('taken back in those seconds, it leaves no trace with anybody, and no sequence is used up', () => {
    const made = call('tomas', who('bruno', 'marta@quill-audit.example'));
    const { uid } = itemOf(made);
    value(takeBack(ctx('tomas'), made.sending?.key ?? ''));
    pass(60);
    expect([inCalendar('bruno', uid), inCalendar('ines', uid), mail()]).toEqual([undefined, undefined, []]);
    // Taken back is a change alone, where the meeting stood before.
    const stands = call('tomas', who('bruno'));
    pass();
    const { key, version, uid: other } = itemOf(stands);
    const moved = value(
      changeMeeting(ctx('tomas'), key, { version, scope: 'one', when: at('2027-03-04', 10), fields: {} }),
    );
    value(takeBack(ctx('tomas'), moved.sending?.key ?? ''));
    pass(60);
    expect(inCalendar('bruno', other)?.start).toBe(Date.UTC(2027, 2, 3, 10));
    expect([inCalendar('ines', other)?.start, inCalendar('bruno', other)?.sequence]).toEqual([
      Date.UTC(2027, 2, 3, 10),
      0,
    ]);
    expect(takeBack(ctx('tomas'), moved.sending?.key ?? '')).toMatchObject({ ok: false, code: 'leftAlready' });
  });

  test('who may change but not speak leaves it waiting for somebody who may; what they may not say they can’t', () => {
    const made = call('amara', who('bruno'));
    expect(made.sending).toMatchObject({ to: 1, leaves: null });
    const { uid } = itemOf(made);
    pass(600);
    expect(inCalendar('bruno', uid)).toBeUndefined();
    const key = made.sending?.key ?? '';
    expect(sayIt(ctx('amara'), key)).toMatchObject({ ok: false, code: 'mayNotSpeak' });
    expect(sayIt(ctx('wren'), key)).toMatchObject({ ok: false, code: 'notFound' });
    const waits = value(readMeeting(ctx('tomas'), made.item?.id ?? '')).waiting;
    expect(waits).toMatchObject([{ act: 'tell', who: 'Amara', leaves: null, to: [{ name: 'Bruno' }], maySay: true }]);
    value(sayIt(ctx('tomas'), key));
    pass();
    expect(inCalendar('bruno', uid)).toMatchObject({ ownerAnswer: 'needs-action' });
  });

  test('a right withdrawn while it waits stops it; who is asked never comes with answers of the sender’s making', () => {
    const made = call('tomas', who('bruno'));
    const rows = value(listSightlines(ctx('ines'), org.calendar('ines'))).rows;
    const seen = rows.find((r) => r.audience.kind === 'person' && r.audience.id === 'tomas')?.grants[0]?.key ?? null;
    const audience = { kind: 'person' as const, id: 'tomas' };
    value(giveAccess(ctx('ines'), org.calendar('ines'), { audience, rights: PRESETS.arranger, seen }));
    pass();
    expect(inCalendar('bruno', itemOf(made).uid)).toBeUndefined();
    const body = { when: at('2027-03-03', 10), title: 'X' };
    expect(newItem.safeParse({ ...body, organiser: { address: address('wren'), name: null } }).success).toBe(false);
    expect(newItem.safeParse({ ...body, attendees: [] }).success).toBe(false);
    expect(newItem.safeParse({ ...body, people: [{ address: address('bruno'), answer: 'accepted' }] }).success).toBe(
      false,
    );
  });

  test('a room that is free accepts by itself, and one that is taken declines', () => {
    saveResource(org.db, org.person('room').id, 'room', 12);
    const first = call('tomas', who('bruno', 'room'));
    pass();
    expect(answersOn('ines', itemOf(first).uid)).toEqual({ bruno: 'needs-action', room: 'accepted' });
    const second = call('tomas', who('wren', 'room'), { when: at('2027-03-03', 10, 2) });
    pass();
    expect(answersOn('ines', itemOf(second).uid)).toEqual({ wren: 'needs-action', room: 'declined' });
    const daily = call('tomas', who('room'), { when: at('2027-03-01', 10), repeat: { rule: 'FREQ=DAILY;COUNT=5' } });
    pass();
    expect(answersOn('ines', itemOf(daily).uid)).toEqual({ room: 'declined' });
  });
});

test('a group is asked as one: whoever is in it is asked, whoever joined or left by the next word of it too', () => {
  const key = org.group('Weir', ['bruno', 'dario']);
  const group = (handle: string) => who(handle).map((one) => ({ ...one, group: key }));
  // Of two who are in it one was named, of three named one isn't in it.
  const made = call('tomas', [...group('bruno'), ...group('wren')]);
  expect(made.sending).toMatchObject({ to: 3 });
  pass();
  const read = () =>
    value(readMeeting(ctx('tomas'), itemOf(made).key)).people.map((p) => [p.name, p.group?.name ?? null]);
  expect(read()).toEqual([
    ['Bruno', 'Weir'],
    ['Wren', null],
    ['Dario', 'Weir'],
  ]);
  const set = (handle: string, member: boolean) => value(setMembership(ctx('ines'), key, { handle, member }));
  set('bruno', false);
  set('oona', true);
  const { key: id, version } = itemOf(made);
  const people = [...group('bruno'), ...who('wren'), ...group('dario')];
  const again = value(changeMeeting(ctx('tomas'), id, { version, scope: 'all', fields: {}, people }));
  expect(again.sending).toMatchObject({ to: 1 });
  pass();
  // Who was named and isn't in it any more was named all the same.
  expect(read()).toEqual([
    ['Bruno', null],
    ['Wren', null],
    ['Dario', 'Weir'],
    ['Oona', 'Weir'],
  ]);
  expect(arrived('oona')).toEqual(['invitation']);
});

test('whether somebody can come is said from what the asker sees, and nothing else', () => {
  org.add('bruno', 'bruno', { title: 'Audit', when: at('2027-03-03', 10), visibility: 'private' });
  org.give('wren', 'tomas', PRESETS.shutOut);
  const answer = value(
    whoCanCome(ctx('tomas'), org.calendar('ines'), {
      when: at('2027-03-03', 10),
      people: [address('bruno'), address('dario'), address('wren'), 'marta@quill-audit.example'],
      item: null,
    }),
  );
  expect(answer.people.map((p) => p.can)).toEqual(['busy', 'free', 'unknown', 'unknown']);
  // What was called off takes nobody's time, not even for whoever still sees it.
  const off = org.add('bruno', 'bruno', { title: 'Called off', when: at('2027-03-04', 10) });
  org.db.run('UPDATE item SET cancelled = 1 WHERE key = ?', off.id);
  const body = { when: at('2027-03-04', 10), people: [address('bruno')], item: null };
  expect(value(whoCanCome(ctx('bruno'), org.calendar('ines'), body)).people[0]?.can).toBe('free');
});

test('whoever is away all day, or for days, can’t come on any of them; on the day after they can', () => {
  const days = (start: string, end: string) => ({ start, end, allDay: true, zone: 'Europe/Lisbon' });
  org.add('bruno', 'bruno', { title: 'Away', shows: 'away', when: days('2027-03-09', '2027-03-10') });
  org.add('dario', 'dario', { title: 'Fair', shows: 'busy', when: days('2027-03-09', '2027-03-12') });
  const on = (when: ReturnType<typeof at> | ReturnType<typeof days>) =>
    value(
      whoCanCome(ctx('tomas'), org.calendar('ines'), {
        when,
        people: [address('bruno'), address('dario')],
        item: null,
      }),
    ).people.map((p) => p.can);
  expect(on(at('2027-03-08', 22))).toEqual(['free', 'free']);
  expect(on(at('2027-03-09', 0))).toEqual(['away', 'busy']);
  expect(on(at('2027-03-09', 10))).toEqual(['away', 'busy']);
  expect(on(at('2027-03-11', 22))).toEqual(['free', 'busy']);
  expect(on(at('2027-03-12', 0))).toEqual(['free', 'free']);
  expect(on(days('2027-03-08', '2027-03-09'))).toEqual(['free', 'free']);
  expect(on(days('2027-03-08', '2027-03-10'))).toEqual(['away', 'busy']);
  expect(on(days('2027-03-12', '2027-03-13'))).toEqual(['free', 'free']);
  // The time of one hour elsewhere is another day here.
  const noumea = { start: '2027-03-09T01:00', end: '2027-03-09T02:00', allDay: false, zone: 'Pacific/Noumea' };
  expect(on(noumea)).toEqual(['free', 'free']);
});

test('an item of one’s own under another’s UID says nothing of theirs', () => {
  const { id } = org.add('bruno', 'bruno', { title: 'Clinic', when: at('2027-03-09', 10), visibility: 'private' });
  const uid = org.db.get<{ uid: string }>('SELECT uid FROM item WHERE key = ?', id)?.uid ?? '';
  const mine = org.add('wren', 'wren', { title: 'Probe', when: at('2027-03-09', 10) }, { uid });
  const other = org.add('wren', 'wren', { title: 'Other', when: at('2027-03-09', 10) });
  const waitingOn = (item: string) => {
    const body = { when: at('2027-03-09', 10), people: [address('bruno')], item };
    return value(whoCanCome(ctx('wren'), org.calendar('wren'), body)).people[0]?.can;
  };
  expect([waitingOn(mine.id), waitingOn(other.id)]).toEqual(['busy', 'busy']);
});
