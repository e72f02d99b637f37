import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { newItem } from '@/contract/items.ts';
import { PRESETS } from '@/core/access/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { itemByKey, itemsByUid } from '../../repositories/items.ts';
import { saveResource } from '../../repositories/people.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { listItems } from '../items/list-items.ts';
import { listMessages, readMessages } from '../messages/list-messages.ts';
import { writeMailFor } from '../messages/write-mail.ts';
import { giveAccess } from '../sharing/give-access.ts';
import { changeHouseRules } from '../sharing/house-rules.ts';
import { listSightlines } from '../sharing/sightlines.ts';
import { at, houseRulesWith, type SmallOrganisation, START, smallOrganisation, WEEK } from '../small-organisation.ts';
import { answerSuggestion, listSuggestions, putForward } from '../suggestions/suggestions.ts';
import {
  actOnMeeting,
  answerItem,
  changeMeeting,
  createMeeting,
  moveMeeting,
  readMeeting,
  releaseDue,
  removeMeeting,
  sayIt,
  takeBack,
  undoMeeting,
  whoCanCome,
} from './index.ts';

let org: SmallOrganisation;
beforeEach(() => {
  org = smallOrganisation(['ines', 'tomas', 'amara', 'bruno', 'dario', 'wren', 'oona', 'room']);
  org.give('ines', 'tomas', PRESETS.delegate);
  org.give('ines', 'oona', { ...PRESETS.delegate, copies: true });
  org.give('ines', 'amara', PRESETS.arranger);
  org.give('bruno', 'tomas', PRESETS.delegate);
});
afterEach(() => org.close());

const address = (handle: string) => `${handle}@cloudmoor.example`;
const who = (...handles: string[]) =>
  handles.map((h) => ({ address: h.includes('@') ? h : address(h), name: null, role: 'must' as const }));
const value = <T>(result: { ok: true; value: T } | { ok: false; code: string }): T => {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
};
let later = START;
/** Lets so many seconds pass, and whatever is due by then leave. */
const pass = (seconds = 11) => {
  later += seconds * 1000;
  releaseDue(org.db, later);
};
beforeEach(() => {
  later = START;
});
const ctx = (handle: string) => org.ctx(handle, later);
const call = (
  by: string,
  people: ReturnType<typeof who>,
  more: Partial<Parameters<typeof newItem.parse>[0] & object> = {},
  of = 'ines',
) =>
  value(
    createMeeting(
      ctx(by),
      org.calendar(of),
      newItem.parse({ when: at('2027-03-03', 10), title: 'Weir consent', people, ...more }),
    ),
  );
/** What stands in somebody's calendar for a meeting. */
const inCalendar = (handle: string, uid: string): StoredItem | undefined => {
  const calendar = mainCalendarOf(org.db, org.person(handle).id);
  return calendar ? itemsByUid(org.db, calendar.id, uid).find((i) => i.recurrence === null) : undefined;
};
const itemOf = (answer: { item: { id: string } | null }): StoredItem =>
  itemByKey(org.db, (answer.item?.id ?? '').split('~')[0] ?? '') as StoredItem;
const idIn = (handle: string, uid: string) => inCalendar(handle, uid)?.key ?? '';
const answersOn = (handle: string, uid: string) =>
  Object.fromEntries((inCalendar(handle, uid)?.attendees ?? []).map((a) => [a.address.split('@')[0], a.answer]));
const mail = () =>
  org.db
    .all<{ to_address: string; mail: string }>('SELECT to_address, mail FROM outgoing_mail ORDER BY id')
    .map((m) => `${JSON.parse(m.mail).meeting.message.method} ${m.to_address}`);
const arrived = (handle: string) =>
  org.db
    .all<{ kind: string }>(
      `SELECT m.kind FROM message m JOIN collection c ON c.id = m.collection_id WHERE c.owner_id = ? AND c.name = 'Arrived' ORDER BY m.id`,
      org.person(handle).id,
    )
    .map((m) => m.kind);

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

describe('answering for the owner', () => {
  const invited = () => {
    const made = call('wren', who('ines', 'bruno'), {}, 'wren');
    pass();
    return itemOf(made).uid;
  };
  const answer = (
    by: string,
    uid: string,
    what: 'accepted' | 'declined' | 'tentative',
    seen: 'needs-action' | 'accepted' | 'declined' = 'needs-action',
  ) => answerItem(ctx(by), idIn('ines', uid), { answer: what, comment: 'Gladly', seen, scope: 'all' });

  test('the organiser gets one answer with both names; the calendar follows at once, the list when it left', () => {
    const uid = invited();
    const made = value(answer('tomas', uid, 'accepted'));
    expect(made.sending).toMatchObject({ to: 1, outside: 0 });
    expect(inCalendar('ines', uid)?.ownerAnswer).toBe('accepted');
    expect(answersOn('wren', uid)).toEqual({ ines: 'needs-action', bruno: 'needs-action' });
    pass();
    expect(inCalendar('wren', uid)?.attendees).toContainEqual({
      name: 'Ines',
      address: address('ines'),
      answer: 'accepted',
      by: address('tomas'),
    });
    expect(arrived('wren')).toEqual(['answer']);
    expect(value(readMeeting(ctx('wren'), idIn('wren', uid))).people[0]).toMatchObject({
      answer: 'accepted',
      comment: 'Gladly',
      by: 'Tomas',
    });
    // Nobody else asked hears of it.
    expect(arrived('bruno')).toEqual(['invitation']);
  });

  test('whoever answers first closes it, with who and when; a change of answer is one more press by who has read that', () => {
    const uid = invited();
    value(answer('tomas', uid, 'accepted'));
    expect(answer('oona', uid, 'declined')).toMatchObject({
      ok: false,
      code: 'answeredMeanwhile',
      facts: { name: 'Tomas', answer: 'accepted' },
    });
    pass();
    expect(answer('oona', uid, 'declined')).toMatchObject({ ok: false, code: 'answeredMeanwhile' });
    value(answer('oona', uid, 'declined', 'accepted'));
    pass();
    expect(answersOn('wren', uid).ines).toBe('declined');
    // Declined, it stands for the owner and who acts, and is gone for the rest.
    const seen = (handle: string) => value(listItems(ctx(handle), org.calendar('ines'), WEEK)).items.length;
    expect([seen('ines'), seen('tomas'), seen('dario')]).toEqual([1, 1, 0]);
  });

  test('who doesn’t speak may not answer; what one doesn’t see isn’t there', () => {
    const uid = invited();
    expect(answer('amara', uid, 'accepted')).toMatchObject({ ok: false, code: 'mayNotAnswer' });
    expect(answer('dario', uid, 'accepted')).toMatchObject({ ok: false, code: 'notFound' });
    const id = idIn('ines', uid);
    value(changeMeeting(ctx('ines'), id, { version: 1, scope: 'one', fields: { visibility: 'private' } }));
    expect(answer('tomas', uid, 'accepted')).toMatchObject({ ok: false, code: 'notFound' });
    value(answer('ines', uid, 'accepted'));
  });

  test('taken back, an answer was never given', () => {
    const uid = invited();
    const made = value(answer('tomas', uid, 'declined'));
    value(takeBack(ctx('tomas'), made.sending?.key ?? ''));
    expect(inCalendar('ines', uid)?.ownerAnswer).toBe('needs-action');
    pass();
    expect([answersOn('wren', uid).ines, arrived('wren')]).toEqual(['needs-action', []]);
    value(answer('oona', uid, 'accepted'));
  });

  test('a time is proposed instead, taken by one press, and everybody is asked anew', () => {
    const uid = invited();
    value(
      answerItem(ctx('tomas'), idIn('ines', uid), {
        answer: 'another',
        when: at('2027-03-04', 14),
        comment: 'The train',
        seen: 'needs-action',
        scope: 'all',
      }),
    );
    pass();
    expect(arrived('wren')).toEqual(['counter']);
    const read = value(readMeeting(ctx('wren'), idIn('wren', uid)));
    expect(read.people[0]?.counter).toEqual({
      when: { start: '2027-03-04T14:00:00Z', end: '2027-03-04T15:00:00Z', allDay: false },
      comment: 'The train',
    });
    const { key, version } = inCalendar('wren', uid) as StoredItem;
    value(actOnMeeting(ctx('wren'), key, { act: 'takeCounter', attendee: address('ines'), version }));
    pass();
    expect([inCalendar('ines', uid)?.start, inCalendar('bruno', uid)?.start]).toEqual([
      Date.UTC(2027, 2, 4, 14),
      Date.UTC(2027, 2, 4, 14),
    ]);
    expect(value(readMeeting(ctx('wren'), key)).people[0]?.counter).toBeNull();
  });

  test('a proposed time is declined with a word, and the meeting stands', () => {
    const uid = invited();
    const when = at('2027-03-04', 14);
    value(
      answerItem(ctx('ines'), idIn('ines', uid), {
        answer: 'another',
        when,
        comment: '',
        seen: 'needs-action',
        scope: 'all',
      }),
    );
    pass();
    const id = idIn('wren', uid);
    value(actOnMeeting(ctx('wren'), id, { act: 'declineCounter', attendee: address('ines'), comment: 'Wren is away' }));
    pass();
    expect(arrived('ines')).toEqual(['invitation', 'counterDeclined']);
    expect(value(readMeeting(ctx('wren'), id)).people[0]?.counter).toBeNull();
    expect(value(readMeeting(ctx('ines'), idIn('ines', uid))).answered).toBeNull();
  });

  test('of what others call, one’s own copy keeps what is one’s own; the rest isn’t changed here', () => {
    const uid = invited();
    const { key, version } = inCalendar('ines', uid) as StoredItem;
    expect(changeMeeting(ctx('tomas'), key, { version, scope: 'one', fields: { title: 'Mine' } })).toMatchObject({
      code: 'calledByOthers',
    });
    value(
      changeMeeting(ctx('tomas'), key, {
        version,
        scope: 'one',
        fields: { visibility: 'outline', briefing: 'Bring maps' },
      }),
    );
    const theirs = inCalendar('wren', uid) as StoredItem;
    value(
      changeMeeting(ctx('wren'), theirs.key, {
        version: theirs.version,
        scope: 'one',
        when: at('2027-03-05', 9),
        fields: {},
      }),
    );
    pass();
    expect(inCalendar('ines', uid)).toMatchObject({
      start: Date.UTC(2027, 2, 5, 9),
      visibility: 'outline',
      briefing: 'Bring maps',
      ownerAnswer: 'needs-action',
    });
    expect(theirs.briefing).toBeNull();
  });

  test.each(['all', 'one'] as const)('taken out of the calendar, an invitation is declined, as %s', (scope) => {
    const uid = invited();
    const { key, version } = inCalendar('ines', uid) as StoredItem;
    value(removeMeeting(ctx('tomas'), key, { version, scope }));
    pass();
    expect([answersOn('wren', uid).ines, inCalendar('ines', uid)]).toEqual(['declined', undefined]);
  });
});

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
    expect([arrived('bruno'), inCalendar('bruno', uid)?.title]).toEqual([['invitation'], 'Weir consent']);
    expect(change({ people: who('bruno', 'wren', 'dario') }).sending).toMatchObject({ to: 1 });
    pass();
    expect([arrived('bruno'), arrived('dario')]).toEqual([['invitation'], ['invitation']]);
    expect(inCalendar('dario', uid)).toMatchObject({ title: 'Weir', notes: 'Bring the map', visibility: 'follow' });
    value(
      answerItem(ctx('bruno'), idIn('bruno', uid), {
        answer: 'accepted',
        comment: '',
        seen: 'needs-action',
        scope: 'all',
      }),
    );
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
    value(
      answerItem(ctx('bruno'), idIn('bruno', uid), {
        answer: 'accepted',
        comment: '',
        seen: 'needs-action',
        scope: 'all',
      }),
    );
    pass();
    expect(value(undoMeeting(ctx('tomas'), moved.undo)).sending).toMatchObject({ to: 1 });
    expect(answersOn('ines', uid).bruno).toBe('accepted');
    pass();
    expect([inCalendar('bruno', uid)?.start, answersOn('ines', uid).bruno]).toEqual([
      Date.UTC(2027, 2, 3, 10),
      'needs-action',
    ]);
    const off = value(removeMeeting(ctx('tomas'), key, { version: itemOf(made).version, scope: 'all' }));
    pass();
    value(undoMeeting(ctx('tomas'), off.undo));
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
    expect([arrived('wren').length, arrived('bruno').length]).toEqual([2, 1]);
    value(
      answerItem(ctx('wren'), idIn('wren', uid), {
        answer: 'accepted',
        comment: '',
        seen: 'needs-action',
        scope: 'all',
      }),
    );
    pass();
    expect(actOnMeeting(ctx('tomas'), key, { act: 'nudge', whom: null })).toMatchObject({ code: 'allAnswered' });
  });

  test('one of a series is moved, left out, and answered by itself; the rest stands', () => {
    const rule = 'FREQ=WEEKLY;COUNT=4';
    const made = call('tomas', who('bruno', 'marta@quill-audit.example'), { repeat: { rule } });
    pass();
    const { uid, key, version } = itemOf(made);
    value(
      answerItem(ctx('bruno'), idIn('bruno', uid), {
        answer: 'accepted',
        comment: '',
        seen: 'needs-action',
        scope: 'all',
      }),
    );
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

  test('from one happening on, a series goes on as another; those asked hear of both, and answers begin afresh only where its hours moved', () => {
    const made = call('tomas', who('bruno'), { repeat: { rule: 'FREQ=WEEKLY;COUNT=6' } });
    pass();
    const { uid, key, version } = itemOf(made);
    value(
      answerItem(ctx('bruno'), idIn('bruno', uid), {
        answer: 'accepted',
        comment: '',
        seen: 'needs-action',
        scope: 'all',
      }),
    );
    pass();
    const week = (n: number) => (Date.UTC(2027, 2, 3 + 7 * n, 10) / 1000).toString(36);
    const placed = value(
      changeMeeting(ctx('tomas'), `${key}~${week(2)}`, { version, scope: 'later', fields: { place: 'Seed Store' } }),
    );
    pass();
    const next = itemOf(placed);
    expect([next.rule, itemOf(made).rule]).toEqual(['FREQ=WEEKLY;COUNT=4', 'FREQ=WEEKLY;UNTIL=20270317T095959Z']);
    expect(inCalendar('bruno', uid)).toMatchObject({
      rule: 'FREQ=WEEKLY;UNTIL=20270317T095959Z',
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
    const undone = undoMeeting(ctx('tomas'), thursdays.undo);
    expect(undone.ok).toBe(true);
    pass();
    expect([inCalendar('bruno', last.uid)?.cancelled, inCalendar('bruno', next.uid)?.rule]).toEqual([
      true,
      'FREQ=WEEKLY;COUNT=4',
    ]);
  });

  test('somebody added to a series comes to its changed happenings too, and goes from them with it', () => {
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
    value(undoMeeting(ctx('tomas'), widened.undo));
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

  test('a series moves to another day of the week as a whole; what comes after a happening is called off', () => {
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
    expect(inCalendar('bruno', uid)?.rule).toBe('FREQ=WEEKLY;UNTIL=20270319T085959Z;BYDAY=FR');
  });

  test('booked in the wrong calendar, it moves with its people and answers, and they hear who calls it now', () => {
    const made = call('tomas', who('wren', 'marta@quill-audit.example'), {}, 'ines');
    pass();
    const was = itemOf(made);
    value(
      answerItem(ctx('wren'), idIn('wren', was.uid), {
        answer: 'accepted',
        comment: '',
        seen: 'needs-action',
        scope: 'all',
      }),
    );
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

test('whether somebody can come is said from what the asker sees, and nothing else', () => {
  org.add('bruno', 'bruno', { title: 'Audit', when: at('2027-03-03', 10), visibility: 'private' });
  org.give('wren', 'tomas', PRESETS.shutOut);
  const asked = value(
    whoCanCome(ctx('tomas'), org.calendar('ines'), {
      when: at('2027-03-03', 10),
      people: [address('bruno'), address('dario'), address('wren'), 'marta@quill-audit.example'],
      item: null,
    }),
  );
  expect(asked.people.map((p) => p.can)).toEqual(['busy', 'free', 'unknown', 'unknown']);
});

describe('what is put forward', () => {
  test('a helper’s invitation, added person, answer and calling off are sent by a yes, as the helper’s work and in the yes-sayer’s hand', () => {
    org.give('ines', 'dario', PRESETS.helper);
    const say = (how: 'yes' | 'no' = 'yes') => {
      const [first] = value(listSuggestions(ctx('tomas'))).waiting;
      value(
        answerSuggestion(ctx('tomas'), first?.key ?? '', { answer: how, note: '', version: first?.version ?? null }),
      );
      pass();
    };
    const calendar = org.calendar('ines');
    const item = newItem.parse({ when: at('2027-03-03', 10), title: 'Weir consent', people: who('bruno') });
    value(putForward(ctx('dario'), calendar, { kind: 'add', item, why: 'He asked' }));
    expect(value(listSuggestions(ctx('tomas'))).waiting[0]?.wanted.people).toEqual([
      { name: null, address: address('bruno') },
    ]);
    pass();
    expect(arrived('bruno')).toEqual([]);
    say();
    expect(arrived('bruno')).toEqual(['invitation']);
    const [made] = value(listItems(ctx('tomas'), calendar, WEEK)).items;
    const uid = itemByKey(org.db, made?.id ?? '')?.uid ?? '';
    expect(inCalendar('ines', uid)).toMatchObject({ createdBy: org.person('dario').id });
    const id = made?.id ?? '';
    value(
      putForward(ctx('dario'), calendar, {
        kind: 'change',
        item: id,
        fields: {},
        people: who('bruno', 'wren'),
        why: '',
      }),
    );
    say();
    expect([arrived('bruno'), arrived('wren')]).toEqual([['invitation'], ['invitation']]);
    value(putForward(ctx('dario'), calendar, { kind: 'remove', item: id, why: '' }));
    say('no');
    expect(arrived('wren')).toEqual(['invitation']);
    value(putForward(ctx('dario'), calendar, { kind: 'remove', item: id, why: '' }));
    say();
    expect(arrived('wren')).toEqual(['invitation', 'calledOff']);

    const asked = call('wren', who('ines'), {}, 'wren');
    pass();
    const other = itemOf(asked).uid;
    value(
      putForward(ctx('dario'), calendar, {
        kind: 'answer',
        item: idIn('ines', other),
        answer: 'tentative',
        comment: 'If the board ends',
        why: '',
      }),
    );
    expect(inCalendar('ines', other)?.ownerAnswer).toBe('needs-action');
    say();
    expect(value(readMeeting(ctx('wren'), idIn('wren', other))).people[0]).toMatchObject({
      answer: 'tentative',
      comment: 'If the board ends',
      by: 'Tomas',
    });
  });
});

describe('the messages of somebody', () => {
  const threads = (by: string) => value(listMessages(ctx(by), 'ines', null)).threads;

  test('needs come first, a private invitation is a taken time, and each has their own read state', () => {
    call('wren', who('ines'), { title: 'Open talk' }, 'wren');
    pass();
    const hidden = call('wren', who('ines'), { title: 'Salary', when: at('2027-03-04', 9) }, 'wren');
    pass();
    const { uid } = itemOf(hidden);
    value(
      changeMeeting(ctx('ines'), idIn('ines', uid), { version: 1, scope: 'one', fields: { visibility: 'private' } }),
    );
    expect(threads('ines').map((t) => [t.title, t.needs, t.withheld])).toEqual([
      ['Open talk', 'answer', false],
      ['Salary', 'answer', false],
    ]);
    const seen = threads('tomas');
    expect(seen.map((t) => [t.title, t.needs, t.withheld])).toEqual([
      ['Open talk', 'answer', false],
      [null, null, true],
    ]);
    expect(JSON.stringify(seen)).not.toContain('Salary');
    expect(seen[1]).toMatchObject({ messages: [], organiser: null, item: null });
    const [open] = threads('tomas');
    value(readMessages(ctx('tomas'), 'ines', open?.messages.map((m) => m.key) ?? []));
    expect([threads('tomas')[0]?.unread, threads('ines')[0]?.unread]).toEqual([0, 1]);
    expect(listMessages(ctx('bruno'), 'ines', null)).toMatchObject({ ok: false, code: 'notFound' });
    expect(listMessages(ctx('amara'), 'ines', null)).toMatchObject({ ok: false, code: 'notFound' });
  });

  test('mail in somebody’s name carries both; what comes back is read by who wrote it, and plain mail by its owner alone', () => {
    const body = {
      to: [{ address: address('bruno'), name: null }],
      subject: 'The map',
      text: 'Have you got it?',
      answers: null,
    };
    expect(writeMailFor(ctx('amara'), 'ines', body)).toMatchObject({ code: 'notFound' });
    value(writeMailFor(ctx('tomas'), 'ines', body));
    const [his] = value(listMessages(ctx('bruno'), 'bruno', null)).threads;
    expect(his?.messages[0]).toMatchObject({
      from: { name: 'Ines' },
      by: { name: 'Tomas' },
      subject: 'The map',
      says: 'Have you got it?',
    });
    // His assistant speaks for him, and reads none of his mail by that.
    expect(value(listMessages(ctx('tomas'), 'bruno', null)).threads).toEqual([]);
    const answers = his?.messages[0]?.key ?? '';
    value(
      writeMailFor(ctx('bruno'), 'bruno', {
        ...body,
        to: [{ address: address('ines'), name: null }],
        text: 'Here',
        answers,
      }),
    );
    expect(threads('tomas')[0]?.messages.map((m) => m.says)).toEqual(['Have you got it?', 'Here']);
    // Another of her assistants didn’t write in it.
    expect(threads('oona')).toEqual([]);
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

  test('so nobody moves a series with a happening they may not touch, nor takes people out of that', () => {
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
});

test('who arranges takes back no answer of whom they don’t speak for', () => {
  const made = call('bruno', who('ines'), {}, 'bruno');
  pass();
  const { uid } = itemOf(made);
  const answer = { answer: 'accepted' as const, comment: '', seen: 'needs-action' as const, scope: 'all' as const };
  const answered = value(answerItem(ctx('tomas'), idIn('ines', uid), answer));
  const key = answered.sending?.key ?? '';
  expect(takeBack(ctx('amara'), key)).toMatchObject({ code: 'notFound' });
  expect(takeBack(ctx('tomas'), key)).toMatchObject({ ok: true });
});
